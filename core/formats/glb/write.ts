// write.ts — parts as a binary glTF 2.0 (§4 "Binary glTF"): a node a part and a group below one root, a mesh and a material a body,
// which copies share; what was placed has its node where it is turned about. Positions, normals
// and places on pictures interleaved, all indices together. The bytes are those that the general-purpose library writes for the same
// scene, which takes several times as long.
import {
  isMirroring,
  isStill,
  MIRROR,
  minus,
  moved,
  product,
  quaternionOf,
  type Rigid,
  STAY,
  shift,
  undone,
  withoutShift,
} from '../../geometry/rigid.ts';
import type { Material } from '../../materials/schema.ts';
import { placedVertices, SHADING, type ShadedMesh, shade } from '../../mesh/normals.ts';
import { sorted } from '../../mesh/sections.ts';
import { SIDES } from '../../mesh/types.ts';
import { pngFacts } from '../../picture/png.ts';
import type { MeshWriteOptions, Pictures } from '../format.ts';
import { type Part, paintOf, type Stand, type StandingGroup } from '../part.ts';
import { extensionsUsed, materialOf } from './materials.ts';

/** 16-bit indices reach this far; the last value is kept for primitive restart. */
const MAX_SHORT_INDEX = 65534;

/** Constants of glTF. */
const [FLOAT, SHORT, INT] = [5126, 5123, 5125];
const [VERTICES, INDICES] = [34962, 34963];
const TRIANGLES = 4;
const [LINEAR, LINEAR_MIPMAP_LINEAR, REPEAT] = [9729, 9987, 10497];

/** A material and the triangles that have it. */
interface Paint {
  readonly name: string;
  readonly material: Material;
  readonly indices: Uint32Array;
}

interface Prepared {
  readonly name: string;
  readonly painted: readonly Paint[];
  readonly shaded: ShadedMesh;
  readonly isShort: boolean;
  /** Bytes of a vertex. */
  readonly stride: number;
}

/** Lengths stay as they are; `metresPerUnit` is the root node's scale. */
export function writeGlb(parts: readonly Part[], { name, metresPerUnit, pictures }: MeshWriteOptions): Uint8Array {
  const { bodies, bodyOf } = bodiesOf(parts);
  const prepared = bodies.map(preparedPart);
  const { nodes, roots } = nodesOf(parts, bodyOf);
  const { views, accessors, numbers } = layout(prepared);
  const shown = picturesIn(prepared, pictures, views);
  const end = views.at(-1);
  const binary = new Uint8Array(end ? padded(end.byteOffset + end.byteLength) : 0);
  writeVertices(binary, prepared, views);
  for (const { bytes, view } of shown) binary.set(bytes, views[view]!.byteOffset);
  const { materials, materialOfPaint } = materialsIn(prepared, shown, metresPerUnit);
  const json = {
    asset: { generator: 'Outline Stack', version: '2.0' },
    ...(bodies.length > 0 ? { accessors, bufferViews: views, buffers: [{ byteLength: binary.length }] } : {}),
    ...extensionsUsed(materials),
    ...texturesOf(shown),
    materials,
    meshes: prepared.map(({ name: own, shaded, painted }, i) => {
      const { attributes, indices } = numbers[i]!;
      const [POSITION, NORMAL] = [attributes, attributes + 1];
      const places = shaded.uvs ? { TEXCOORD_0: attributes + 2 } : {};
      const primitives = painted.map((paint, k) => ({
        attributes: { POSITION, NORMAL, ...places },
        mode: TRIANGLES,
        material: materialOfPaint.get(paint)!,
        indices: indices + k,
      }));
      return { name: own, primitives };
    }),
    nodes: [
      {
        name,
        ...(metresPerUnit === 1 ? {} : { scale: [metresPerUnit, metresPerUnit, metresPerUnit] }),
        children: roots,
      },
      ...nodes,
    ],
    scenes: [{ name, nodes: [0] }],
    scene: 0,
  };
  return container(new TextEncoder().encode(JSON.stringify(json)), binary);
}

function preparedPart(part: Part): Prepared {
  const { name, mesh, shading = SHADING, uvs = null, stand } = part;
  const drawn = shade(mesh, shading, uvs);
  const isShort = drawn.positions.length / 3 <= MAX_SHORT_INDEX;
  const paint = paintOf(part);
  const numbers = SIDES.map((_, side) =>
    Math.max(
      0,
      paint.findIndex(({ has }) => has[side]),
    ),
  );
  const { indices, sections } = sorted(mesh, drawn.indices, numbers);
  const place = stand ? intoBody(stand) : STAY;
  const shaded = isStill(place) ? drawn : { ...drawn, ...placedVertices(drawn, place) };
  const painted = sections.map(({ of, start, count }) => {
    const own = indices.subarray(start, start + count);
    return {
      name: paint[of]!.name,
      material: paint[of]!.material,
      indices: isMirroring(place) ? own.toReversed() : own,
    };
  });
  return { name, painted, shaded, isShort, stride: shaded.uvs ? 32 : 24 };
}

interface ShownPicture {
  readonly asset: string;
  readonly name: string;
  readonly bytes: Uint8Array;
  /** Number of its view. */
  readonly view: number;
}

/** The pictures that any material shows, each once; their views are added to those there are. */
function picturesIn(parts: readonly Prepared[], pictures: Pictures = new Map(), views: View[]): ShownPicture[] {
  const shown = new Map<string, ShownPicture>();
  for (const { material } of parts.flatMap(({ painted }) => painted)) {
    const bytes = material.picture && pictures.get(material.picture.asset);
    if (!material.picture || !bytes || shown.has(material.picture.asset)) continue;
    const { asset, name } = material.picture;
    const last = views.at(-1)!;
    const byteOffset = padded(last.byteOffset + last.byteLength);
    const view = views.push({ buffer: 0, byteOffset, byteLength: bytes.length }) - 1;
    shown.set(asset, { asset, name, bytes, view });
  }
  return [...shown.values()];
}

/** Nothing where there are no pictures. */
function texturesOf(shown: readonly ShownPicture[]) {
  if (shown.length === 0) return {};
  return {
    images: shown.map(({ name, view }) => ({ name, mimeType: 'image/png', bufferView: view })),
    samplers: [{ magFilter: LINEAR, minFilter: LINEAR_MIPMAP_LINEAR, wrapS: REPEAT, wrapT: REPEAT }],
    textures: shown.map((_, source) => ({ sampler: 0, source })),
  };
}

/** Every material once; those of different parts are different ones, unless they are of the same name too. */
function materialsIn(parts: readonly Prepared[], shown: readonly ShownPicture[], metresPerUnit: number) {
  const materials: Record<string, unknown>[] = [];
  const materialOfPaint = new Map<Paint, number>();
  const known: Paint[] = [];
  for (const paint of parts.flatMap(({ painted }) => painted)) {
    const same = known.findIndex(({ name, material }) => name === paint.name && material === paint.material);
    if (same < 0) {
      known.push(paint);
      const index = shown.findIndex(({ asset }) => asset === paint.material.picture?.asset);
      const texture = index < 0 ? null : { index, isOpaque: pngFacts(shown[index]!.bytes).isOpaque };
      materials.push(materialOf(paint.name, paint.material, metresPerUnit, texture));
    }
    materialOfPaint.set(paint, same < 0 ? known.length - 1 : same);
  }
  return { materials, materialOfPaint };
}

/** Parts that share a mesh, its material and whether it is a mirror image are one body in several places. */
function bodiesOf(parts: readonly Part[]): { bodies: Part[]; bodyOf: number[] } {
  const bodies: Part[] = [];
  const isSame = (a: Part, b: Part) =>
    a.stand !== undefined &&
    b.stand !== undefined &&
    a.mesh === b.mesh &&
    a.uvs === b.uvs &&
    a.material === b.material &&
    a.sideMaterials === b.sideMaterials &&
    isMirroring(a.stand.place) === isMirroring(b.stand.place);
  const bodyOf = parts.map((part) => {
    const known = bodies.findIndex((body) => isSame(body, part));
    return known >= 0 ? known : bodies.push(part) - 1;
  });
  return { bodies, bodyOf };
}

/** From where a mesh is to its node: what it is turned about in the node's origin, and mirrored where the node cannot be. */
function intoBody({ place, middle }: Stand): Rigid {
  const centred = shift(minus(middle));
  return isMirroring(place) ? product(MIRROR, centred) : centred;
}

/** From a node to the world. */
function frameOf({ place, middle }: Stand): Rigid {
  const turning = withoutShift(isMirroring(place) ? product(place, MIRROR) : place);
  return product(shift(moved(place, middle)), turning);
}

interface GlbNode {
  readonly name: string;
  readonly mesh?: number;
  readonly translation?: readonly number[];
  readonly rotation?: readonly number[];
  readonly children?: number[];
}

/** A node for each part and each group, groups before what is in them; the first has the number 1. */
function nodesOf(parts: readonly Part[], bodyOf: readonly number[]): { nodes: GlbNode[]; roots: number[] } {
  const nodes: GlbNode[] = [];
  const roots: number[] = [];
  const groups = new Map<StandingGroup, GlbNode>();
  const add = (node: GlbNode, group: StandingGroup | undefined): GlbNode => {
    const children = group ? groupNode(group).children! : roots;
    children.push(nodes.push(node));
    return node;
  };
  const groupNode = (group: StandingGroup): GlbNode => {
    const known = groups.get(group);
    if (known) return known;
    const node = add({ name: group.name, ...placing(group), children: [] }, group.group);
    groups.set(group, node);
    return node;
  };
  for (const [i, { name, stand }] of parts.entries()) {
    add({ name, mesh: bodyOf[i]!, ...(stand ? placing(stand) : {}) }, stand?.group);
  }
  return { nodes, roots };
}

/** Of a node in the node of its group; what is as glTF has it by default is not written. */
function placing(stand: Stand): Pick<GlbNode, 'translation' | 'rotation'> {
  const frame = frameOf(stand);
  const local = stand.group ? product(undone(frameOf(stand.group)), frame) : frame;
  const translation = [local[3], local[7], local[11]];
  const turning = withoutShift(local);
  return {
    ...(translation.some((v) => v !== 0) ? { translation } : {}),
    ...(isStill(turning) ? {} : { rotation: quaternionOf(turning) }),
  };
}

interface View {
  readonly buffer: 0;
  readonly byteOffset: number;
  readonly byteLength: number;
  readonly byteStride?: number;
  readonly target?: number;
}

/** Where everything stands: vertices of the first part, all indices, vertices of the others. */
function layout(parts: readonly Prepared[]) {
  const views: View[] = [];
  const accessors: object[] = [];
  const numbers = parts.map(() => ({ attributes: 0, indices: 0 }));
  let at = 0;
  const view = (byteLength: number, more: Pick<View, 'byteStride' | 'target'>) => {
    views.push({ buffer: 0, byteOffset: at, byteLength, ...more });
    at += byteLength;
  };
  for (const [i, { shaded, stride }] of parts.entries()) {
    const count = shaded.positions.length / 3;
    numbers[i]!.attributes = accessors.length;
    const common = { componentType: FLOAT, count };
    const bufferView = views.length;
    accessors.push(
      { type: 'VEC3', ...common, ...rangeOf(shaded.positions), bufferView, byteOffset: 0 },
      { type: 'VEC3', ...common, bufferView, byteOffset: 12 },
    );
    if (shaded.uvs) accessors.push({ type: 'VEC2', ...common, bufferView, byteOffset: 24 });
    view(stride * count, { byteStride: stride, target: VERTICES });
    if (i > 0) continue;
    let offset = 0;
    for (const [k, { painted, isShort }] of parts.entries()) {
      numbers[k]!.indices = accessors.length;
      const componentType = isShort ? SHORT : INT;
      for (const { indices } of painted) {
        const own = { type: 'SCALAR', componentType, count: indices.length };
        accessors.push({ ...own, bufferView: views.length, byteOffset: offset });
        offset += padded(indices.length * (isShort ? 2 : 4));
      }
    }
    view(offset, { target: INDICES });
  }
  return { views, accessors, numbers };
}

function rangeOf(positions: Float32Array): { max: number[]; min: number[] } {
  const [max, min] = [
    [-Infinity, -Infinity, -Infinity],
    [Infinity, Infinity, Infinity],
  ];
  for (let i = 0; i < positions.length; i += 3) {
    for (let axis = 0; axis < 3; axis++) {
      const v = positions[i + axis]!;
      if (v > max[axis]!) max[axis] = v;
      if (v < min[axis]!) min[axis] = v;
    }
  }
  return { max, min };
}

function writeVertices(binary: Uint8Array, parts: readonly Prepared[], views: readonly View[]): void {
  for (const [i, { shaded, stride }] of parts.entries()) {
    const { positions, normals, uvs } = shaded;
    const { byteOffset, byteLength } = views[i === 0 ? 0 : i + 1]!;
    const floats = new Float32Array(binary.buffer, byteOffset, byteLength / 4);
    const size = stride / 4;
    for (let v = 0, at = 0; v < positions.length; v += 3, at += size) {
      floats[at] = positions[v]!;
      floats[at + 1] = positions[v + 1]!;
      floats[at + 2] = positions[v + 2]!;
      floats[at + 3] = normals[v]!;
      floats[at + 4] = normals[v + 1]!;
      floats[at + 5] = normals[v + 2]!;
    }
    // In glTF, v runs downward.
    if (uvs) {
      for (let v = 0, at = 6; v < uvs.length; v += 2, at += size) {
        floats[at] = uvs[v]!;
        floats[at + 1] = 1 - uvs[v + 1]!;
      }
    }
  }
  let at = views[1]?.byteOffset ?? 0;
  for (const { painted, isShort } of parts) {
    for (const { indices } of painted) {
      if (isShort) new Uint16Array(binary.buffer, at, indices.length).set(indices);
      else new Uint32Array(binary.buffer, at, indices.length).set(indices);
      at += padded(indices.length * (isShort ? 2 : 4));
    }
  }
}

const padded = (length: number) => (length + 3) & ~3;

const MAGIC = 0x46546c67;
const [JSON_CHUNK, BINARY_CHUNK] = [0x4e4f534a, 0x004e4942];
const HEADER = 12;
const CHUNK_HEADER = 8;
const SPACE = 32;

/** Both chunks padded to four bytes, the JSON with spaces. */
function container(json: Uint8Array, binary: Uint8Array): Uint8Array {
  const jsonLength = padded(json.length);
  const start = HEADER + CHUNK_HEADER + jsonLength;
  const bytes = new Uint8Array(start + (binary.length > 0 ? CHUNK_HEADER + binary.length : 0));
  const view = new DataView(bytes.buffer);
  for (const [i, v] of [MAGIC, 2, bytes.length, jsonLength, JSON_CHUNK].entries()) view.setUint32(4 * i, v, true);
  bytes.set(json, HEADER + CHUNK_HEADER);
  bytes.fill(SPACE, HEADER + CHUNK_HEADER + json.length, start);
  if (binary.length > 0) {
    view.setUint32(start, binary.length, true);
    view.setUint32(start + 4, BINARY_CHUNK, true);
    bytes.set(binary, start + CHUNK_HEADER);
  }
  return bytes;
}
