// obj.ts — Wavefront OBJ with its MTL library. Faces keep their corners: quads stay quads.
import { GeometryError } from '../../base/errors.ts';
import { isMirroring, isStill, STAY } from '../../geometry/rigid.ts';
import { type Material, PLAIN } from '../../materials/schema.ts';
import { placedVertices, SHADING, splitVertices } from '../../mesh/normals.ts';
import { placedAt } from '../../mesh/place.ts';
import { faceCount, type Mesh } from '../../mesh/types.ts';
import { rgbOfHex } from '../../picture/colour.ts';
import { pngSize } from '../../picture/png.ts';
import type { MeshFormat } from '../format.ts';
import { fileNames, joinBytes, type PaintedSection, type Part, paintOf, rgbToHex } from '../part.ts';
import { objFacts } from './facts.ts';
import { Lines } from './lines.ts';

const NOTHING = new Uint8Array();

export const obj = {
  ...objFacts,
  read: async (bytes) => readObj({ obj: new TextDecoder().decode(bytes), mtl: '' }),
  readWritten: ({ obj: text = NOTHING, mtl = NOTHING, ...pictures }) =>
    readObj({ obj: new TextDecoder().decode(text), mtl: new TextDecoder().decode(mtl) }).map((part) => ({
      ...part,
      pictures: (part.pictures ?? []).map((file) => sizeOf(pictures, file)),
    })),
  write(parts, { name, pictures = new Map() }) {
    const shown = [...pictures].map(([asset, bytes], i) => ({ asset, bytes, extension: `${i + 1}.png` }));
    const fileOf = new Map(shown.map(({ asset, extension }) => [asset, `${name}.${extension}`]));
    return [
      { extension: 'obj', chunks: objChunks(parts, `${name}.mtl`) },
      { extension: 'mtl', chunks: mtlChunks(parts, fileOf) },
      ...shown.map(({ extension, bytes }) => ({ extension, chunks: [bytes] })),
    ];
  },
  partNames: fileNames,
} as const satisfies MeshFormat;

export interface ObjFiles {
  readonly obj: string;
  readonly mtl: string;
}

/** Of a picture as an MTL names it. @param pictures by their extensions */
function sizeOf(pictures: Readonly<Record<string, Uint8Array>>, file: string): string {
  const [, bytes] = Object.entries(pictures).find(([extension]) => file.endsWith(`.${extension}`)) ?? [];
  return bytes ? pngSize(bytes) : 'none';
}

/** A number from 0 to 1. */
const share = (v: number) => String(Number(v.toFixed(6)));

/** @param library file name of the MTL, as the OBJ is to name it */
function* objChunks(parts: readonly Part[], library: string): Iterable<Uint8Array> {
  const names = fileNames(parts.map((part) => part.name));
  const lines = new Lines();
  lines.text(`mtllib ${library}\n`);
  let pointsBefore = 1;
  let normalsBefore = 1;
  let uvsBefore = 1;
  const paints = paintsOf(parts);
  for (const [i, { mesh, shading = SHADING, uvs: places = null, stand }] of parts.entries()) {
    const name = names[i]!;
    const place = stand?.place ?? STAY;
    const { vertexOfCorner, uvs, ...vertices } = splitVertices(mesh, shading, places);
    const { normals } = isStill(place) ? vertices : placedVertices(vertices, place);
    const isOver = isMirroring(place);
    lines.text(`o ${name}\n`);
    lines.tuples('v', placedAt(mesh, place).positions, 3);
    lines.tuples('vn', normals, 3);
    if (uvs) lines.tuples('vt', uvs, 2);
    for (const { name: paint, has } of paints[i]!) {
      lines.text(`usemtl ${paint}\n`);
      for (let f = 0; f < faceCount(mesh); f++) {
        if (!has[mesh.sides[f]!]) continue;
        lines.text('f');
        const [from, to] = [mesh.starts[f]!, mesh.starts[f + 1]!];
        for (let k = from; k < to; k++) {
          const c = isOver ? from + to - 1 - k : k;
          const vertex = vertexOfCorner[c]!;
          lines.corner(mesh.corners[c]! + pointsBefore, uvs ? vertex + uvsBefore : 0, vertex + normalsBefore);
        }
        lines.text('\n');
      }
    }
    yield lines.take();
    pointsBefore += mesh.positions.length / 3;
    normalsBefore += normals.length / 3;
    uvsBefore += (uvs?.length ?? 0) / 2;
  }
  yield lines.take();
}

/** What each part is made of, by names that no other has: parts that say what their material is called share it. */
function paintsOf(parts: readonly Part[]): PaintedSection[][] {
  const paints = parts.map(paintOf);
  const shared = new Set(parts.flatMap(({ materialName = [] }) => materialName));
  const all = paints.flat().map(({ name }) => name);
  const names = fileNames(all.filter((name, i) => !shared.has(name) || all.indexOf(name) === i));
  let at = 0;
  const known = new Map<string, string>();
  const nameOf = (name: string) => {
    const own = known.get(name) ?? names[at++]!;
    if (shared.has(name)) known.set(name, own);
    return own;
  };
  return paints.map((own) => own.map((paint) => ({ ...paint, name: nameOf(paint.name) })));
}

/** @param files names of pictures, by their assets */
function* mtlChunks(parts: readonly Part[], files: ReadonlyMap<string, string> = new Map()): Iterable<Uint8Array> {
  const written = new Set<string>();
  const lines = paintsOf(parts)
    .flat()
    .flatMap(({ name, material }) => {
      if (written.has(name)) return [];
      written.add(name);
      return materialLines(name, material, material.picture && files.get(material.picture.asset));
    });
  yield new TextEncoder().encode(`${lines.join('\n')}\n`);
}

/** Both files. @param library file name of the MTL, as the OBJ is to name it */
export function writeObj(parts: readonly Part[], library: string): ObjFiles {
  const text = (chunks: Iterable<Uint8Array>) => new TextDecoder().decode(joinBytes([...chunks]));
  return { obj: text(objChunks(parts, library)), mtl: text(mtlChunks(parts)) };
}

function materialLines(
  name: string,
  { colour, opacity, roughness, metalness }: Material,
  picture: string | undefined,
): string[] {
  const kd = rgbOfHex(colour)
    .map((v) => share(v / 255))
    .join(' ');
  // Pr and Pm are the common physically based additions to MTL; readers that do not know them skip the lines.
  const lines = [
    `newmtl ${name}`,
    `Kd ${kd}`,
    `d ${share(opacity)}`,
    `Pr ${share(roughness)}`,
    `Pm ${share(metalness)}`,
  ];
  return [...lines, ...(picture ? [`map_Kd ${picture}`] : []), ''];
}

/**
 * Reads objects, or groups where there are none, faces of any size and the colours of the MTL. Texture coordinates are passed
 * over.
 * @throws {GeometryError} 'bad-file' naming the line
 */
export function readObj({ obj, mtl }: ObjFiles): Part[] {
  const materials = readMtl(mtl);
  const points: number[] = [];
  const hasObjects = /^\s*o\s/m.test(obj);
  const builders: { name: string; materials: string[]; faces: number[][] }[] = [];
  const current = () => {
    if (builders.length === 0) builders.push({ name: 'part', materials: [], faces: [] });
    return builders.at(-1)!;
  };
  // A backslash at the end of a line joins the next one to it; the number of the first is what a reader looks for.
  for (const [i, line] of obj
    .replace(/\\\r?\n/g, ' ')
    .split(/\r?\n/)
    .entries()) {
    const [keyword, ...rest] = line.trim().split(/\s+/);
    if (keyword === 'v') {
      const [x = Number.NaN, y = Number.NaN, z = Number.NaN] = rest.map(Number);
      points.push(x, y, z);
    } else if (keyword === (hasObjects ? 'o' : 'g')) {
      builders.push({ name: rest.join(' ') || 'part', materials: [], faces: [] });
    } else if (keyword === 'usemtl') current().materials.push(rest.join(' '));
    else if (keyword === 'f') {
      const face = rest.map((word) => {
        const index = Number.parseInt(word, 10);
        return index < 0 ? points.length / 3 + index : index - 1;
      });
      if (face.length < 3 || face.some((p) => !(p >= 0 && p < points.length / 3))) {
        throw new GeometryError('bad-file', `The OBJ file has a face without three known points in line ${i + 1}.`);
      }
      current().faces.push(face);
    }
  }
  if (points.some((v) => !Number.isFinite(v)))
    throw new GeometryError('bad-file', 'The OBJ file has a point that is not a number.');
  return builders.map(({ name, materials: used, faces }) => {
    const made = used.map((each) => materials.get(each) ?? PLAIN);
    const pictures = made.flatMap(({ picture }) => picture?.name ?? []);
    return {
      name,
      mesh: polygonMesh(points, faces),
      material: made[0] ?? PLAIN,
      ...(made.length > 1 ? { colours: made.map(({ colour }) => colour) } : {}),
      ...(pictures.length > 0 ? { pictures } : {}),
    };
  });
}

/** Only the points that the faces use, in order of use. */
function polygonMesh(points: readonly number[], faces: readonly (readonly number[])[]): Mesh {
  const index = new Map<number, number>();
  const positions: number[] = [];
  const corners: number[] = [];
  const starts = [0];
  for (const face of faces) {
    for (const point of face) {
      let own = index.get(point);
      if (own === undefined) {
        own = index.size;
        index.set(point, own);
        positions.push(points[3 * point]!, points[3 * point + 1]!, points[3 * point + 2]!);
      }
      corners.push(own);
    }
    starts.push(corners.length);
  }
  return {
    positions: Float64Array.from(positions),
    starts: Uint32Array.from(starts),
    corners: Uint32Array.from(corners),
    sides: new Uint8Array(faces.length),
  };
}

function readMtl(text: string): Map<string, Material> {
  const materials = new Map<string, Material>();
  let name = '';
  for (const line of text.split(/\r?\n/)) {
    const [keyword, ...rest] = line.trim().split(/\s+/);
    if (keyword === 'newmtl') {
      name = rest.join(' ');
      materials.set(name, PLAIN);
    }
    const material = materials.get(name);
    if (!material) continue;
    const values = rest.map(Number);
    if (keyword === 'Kd') materials.set(name, { ...material, colour: rgbToHex(values) });
    if (keyword === 'd') materials.set(name, { ...material, opacity: values[0] ?? 1 });
    if (keyword === 'Pr') materials.set(name, { ...material, roughness: values[0] ?? 1 });
    // Which bytes it means, nothing in here can say.
    if (keyword === 'map_Kd') materials.set(name, { ...material, picture: { asset: '', name: rest.join(' ') } });
    if (keyword === 'Pm') materials.set(name, { ...material, metalness: values[0] ?? 0 });
  }
  return materials;
}
