// solids.ts — our slabs beside the stock extrusion of a general-purpose 3D library, from the same curves in the same run, both
// within the same tolerance: the library divides all curves of a shape alike, so its worst one decides.
import { readdirSync, readFileSync } from 'node:fs';
import { type CurvePath, ExtrudeGeometry, ShapePath, type Vector2 } from 'three';
import { Evaluator, NO_EDGE, type Project, readSvg } from '../core/index.ts';
import { trianglesOf } from '../core/mesh/triangles.ts';
import { audit } from '../core/testing/audit.ts';
import { projectOf } from '../core/testing/projects.ts';
import { median } from './median.ts';

export const ICON_FOLDER = 'bench/sets/node_modules/@mdi/svg/svg';
const ICONS = 300;
const DEPTH = 4;
const STEPS = 3;
const TOLERANCE = 0.01;
const REACHES = [0, 0.5, 1];
const PASSES = 20;

/** Triangles as files hold them, and how long they took. */
interface Outcome {
  readonly ms: number;
  readonly positions: ArrayLike<number>;
  readonly indices: ArrayLike<number>;
}

/** Some of the set, from all over it. */
export function iconNames(): string[] {
  const names = readdirSync(ICON_FOLDER).sort();
  return names.filter((_, i) => i % Math.floor(names.length / ICONS) === 0).slice(0, ICONS);
}

export function compareSolids(): void {
  const icons = iconNames();
  const drawings = icons.map((name) => readSvg(readFileSync(`${ICON_FOLDER}/${name}`, 'utf8')));

  console.log(
    `${icons.length} icons of 24 units, depth ${DEPTH}, round edge in ${STEPS} steps on both sides, tolerance ${TOLERANCE}\n`,
  );
  console.log('reach   closed ours / stock   triangles ours / stock (ratio)   ms ours / stock (ratio)');
  for (const reach of REACHES) {
    const projects = drawings.map((drawing) => prepared(drawing, reach));
    let times: number[][] = [];
    // The last of several passes counts, when both run as fast as they will. Meshes are not kept meanwhile.
    for (let pass = 0; pass < PASSES; pass++) {
      times = projects.map((each) => [ours(each).ms, stock(each.drawing, reach).ms]);
    }
    const own = { ...summaryOf(projects.map(ours)), ms: median(times.map(([ms]) => ms!)) };
    const other = {
      ...summaryOf(projects.map(({ drawing }) => stock(drawing, reach))),
      ms: median(times.map(([, ms]) => ms!)),
    };
    console.log(
      [
        String(reach).padEnd(7),
        `${own.closed} / ${other.closed}`.padEnd(21),
        `${own.triangles} / ${other.triangles} (${(own.triangles / other.triangles).toFixed(2)})`.padEnd(32),
        `${own.ms.toFixed(2)} / ${other.ms.toFixed(2)} (${(own.ms / other.ms).toFixed(2)})`,
      ].join(' '),
    );
  }
}

/** Median of triangles, and the share of closed meshes. */
function summaryOf(outcomes: readonly Outcome[]) {
  const isClosed = ({ positions, indices }: Outcome) => {
    const { loose, flat } = audit(positions, indices);
    return loose === 0 && flat === 0;
  };
  return {
    triangles: median(outcomes.map(({ indices }) => indices.length / 3)),
    closed: `${Math.round((100 * outcomes.filter(isClosed).length) / outcomes.length)} %`,
  };
}

interface Prepared {
  readonly project: Project;
  readonly drawing: ReturnType<typeof readSvg>;
}

function prepared(drawing: Prepared['drawing'], reach: number): Prepared {
  const edge = { ...NO_EDGE, on: reach > 0 ? 'both' : 'none', reach, rise: reach, steps: STEPS } as const;
  const { project } = projectOf(drawing, { tolerance: TOLERANCE, depth: DEPTH, build: { edge } });
  return { project, drawing };
}

function ours({ project, drawing }: Prepared): Outcome {
  const evaluator = new Evaluator({ content: () => drawing });
  const layer = project.layers[0]!;
  evaluator.drawing(project.sources[0]!);
  const started = performance.now();
  const { mesh } = evaluator.build(project, layer);
  const ms = performance.now() - started;
  return { ms, positions: mesh.positions, indices: trianglesOf(mesh).indices };
}

/** The library’s extrusion of a drawing, both sides bevelled. */
export function stock(drawing: Prepared['drawing'], reach: number): Outcome {
  const paths = drawing.shapes.map(({ path }) => pathOf(path));
  const curveSegments = Math.max(1, ...paths.flatMap(({ subPaths }) => subPaths.map(divisionsFor)));
  const started = performance.now();
  const shapes = paths.flatMap((path) => path.toShapes());
  const geometry = new ExtrudeGeometry(shapes, {
    curveSegments,
    depth: DEPTH - 2 * reach,
    bevelEnabled: reach > 0,
    bevelSize: reach,
    bevelThickness: reach,
    bevelOffset: -reach,
    bevelSegments: STEPS,
  });
  const ms = performance.now() - started;
  const positions = geometry.getAttribute('position').array;
  return { ms, positions, indices: Uint32Array.from({ length: positions.length / 3 }, (_, i) => i) };
}

function pathOf(path: Prepared['drawing']['shapes'][number]['path']): ShapePath {
  const result = new ShapePath();
  for (const segment of path) {
    if (segment[0] === 'M') result.moveTo(segment[1], segment[2]);
    else if (segment[0] === 'L') result.lineTo(segment[1], segment[2]);
    else if (segment[0] === 'C') {
      const [, ax, ay, bx, by, x, y] = segment;
      result.bezierCurveTo(ax, ay, bx, by, x, y);
    }
  }
  return result;
}

/** The least number of chords a curve at which none of them strays further than the tolerance. */
function divisionsFor({ curves }: CurvePath<Vector2>): number {
  let most = 1;
  for (const curve of curves) {
    if (curve.type === 'LineCurve') continue;
    const strays = (divisions: number) => {
      for (let k = 0; k < divisions; k++) {
        const [a, b, c] = [0, 1, 0.5].map((part) => curve.getPoint((k + part) / divisions)) as [
          Vector2,
          Vector2,
          Vector2,
        ];
        const [dx, dy] = [b.x - a.x, b.y - a.y];
        if (Math.abs((c.x - a.x) * dy - (c.y - a.y) * dx) > TOLERANCE * Math.hypot(dx, dy)) return true;
      }
      return false;
    };
    while (strays(most)) most++;
  }
  return most;
}
