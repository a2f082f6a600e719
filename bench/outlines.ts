// outlines.ts — uniting and checking many shapes beside a polygon-clipping library, on the same chords in the same run, and
// how the time grows.
import { Clipper, FillRule, type Path64, type Paths64 } from 'clipper2-ts';
import { applyEdit, checkOutlines, type Drawing, type EditAction, parsePath, type Shape } from '../core/index.ts';
import { flatten } from '../core/path/flatten.ts';

const COUNTS = [1250, 2500, 5000];
/** Points round a shape. */
const CORNERS = 20;
/** Steps of the library's integer grid in a unit. */
const GRID = 1e6;

export function compareOutlines(): void {
  console.log(`Stars of ${CORNERS} points in rows, each over its neighbours: united, and checked\n`);
  console.log('shapes / points    union ms ours / library (ratio)   check ms   union µs a point');
  for (const count of COUNTS) {
    const shapes = stars(count);
    const { outcome: ours, ms } = timed(() => united(shapes));
    const rings = shapes.map(({ path }) =>
      flatten(path, 1e-3).map(
        (ring): Path64 =>
          Array.from({ length: ring.length / 2 }, (_, i) => ({
            x: Math.round(ring[2 * i]! * GRID),
            y: Math.round(ring[2 * i + 1]! * GRID),
          })),
      ),
    );
    const { outcome: theirs, ms: others } = timed(() => Clipper.union(rings.flat() as Paths64, FillRule.NonZero));
    const { ms: check } = timed(() => checkOutlines(drawingOf(shapes)));
    if (contours(ours) !== theirs.length) console.log(`  contours differ: ${contours(ours)} / ${theirs.length}`);
    const points = count * CORNERS;
    console.log(
      [
        `${count} / ${points}`.padEnd(18),
        `${ms.toFixed(0)} / ${others.toFixed(0)} (${(ms / others).toFixed(2)})`.padEnd(33),
        check.toFixed(0).padEnd(10),
        ((1000 * ms) / points).toFixed(1),
      ].join(' '),
    );
  }
}

function timed<T>(act: () => T): { outcome: T; ms: number } {
  const start = performance.now();
  const outcome = act();
  return { outcome, ms: performance.now() - start };
}

function stars(count: number): Shape[] {
  const side = Math.ceil(Math.sqrt(count));
  return Array.from({ length: count }, (_, i): Shape => {
    const [cx, cy] = [10 * (i % side), 10 * Math.floor(i / side)];
    const corners = Array.from({ length: CORNERS }, (_, k) => {
      const angle = (2 * Math.PI * k) / CORNERS;
      const r = 4 + 2.2 * Math.sin(5 * angle + i);
      return `${(cx + r * Math.cos(angle)).toFixed(3)} ${(cy + r * Math.sin(angle)).toFixed(3)}`;
    });
    const { path } = parsePath(`M${corners.join('L')}Z`);
    const id = `star-${i}`;
    return { id, name: id, group: '', path, fillRule: 'nonzero', colour: '#204060', opacity: 1 };
  });
}

function drawingOf(shapes: readonly Shape[]): Drawing {
  const side = 10 * Math.ceil(Math.sqrt(shapes.length));
  const sheet = { x: 0, y: 0, width: side, height: side };
  return { shapes, sheet, mmPerUnit: null, leftOut: [], warnings: [] };
}

function united(shapes: readonly Shape[]): Shape {
  const action: EditAction = { do: 'combine', how: 'union', shapes: shapes.map(({ id }) => id) };
  const { drawing } = applyEdit({ drawing: drawingOf(shapes), outcomes: [] }, { id: 'union', on: true, action });
  return drawing.shapes[0]!;
}

const contours = ({ path }: Shape) => path.filter(([letter]) => letter === 'M').length;
