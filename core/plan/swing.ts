// swing.ts — how doors hang: at which jamb and to which side they open, the leaves and arcs that plans draw of them, and which way
// arcs that are drawn already go.
import type { SegmentGrid } from '../outline/segment-grid.ts';
import { arcToCubics } from '../path/arc.ts';
import { distanceToSegment } from '../path/flatten.ts';
import type { Spot } from '../path/points.ts';
import type { Path, Segment } from '../path/types.ts';
import { pieceOf } from './bands.ts';
import { HINGES, type Opening, SWING_SIDES, type Swing, type Wall } from './schema.ts';

/** Of doors of which nothing else is known. */
export const USUAL_SWING: Swing = { hinge: 'start', side: 'right' };

/** The leaves of a door, opened square to its wall, and the quarter circles that their ends go along. */
export function doorLines(wall: Wall, opening: Opening): Path {
  const { hinge, side } = opening.swing ?? USUAL_SWING;
  const face = wall.thickness / 2;
  return leavesAt(hinge).flatMap(({ jamb, share }): Segment[] => {
    const frame = frameOf(wall, opening, jamb, side);
    if (!frame) return [];
    const w = share * opening.width;
    const open = frame(0, face + w);
    const isTurned = (jamb === 'start') === (side === 'left');
    const arc = { rx: w, ry: w, rotationDeg: 0, largeArc: false, sweep: isTurned };
    return [['M', ...frame(0, face)], ['L', ...open], ...arcToCubics(...open, arc, ...frame(w, face))];
  });
}

/** The jambs that leaves hang at, and how wide they are, as shares of the opening. */
const leavesAt = (hinge: Swing['hinge']): { jamb: 'start' | 'end'; share: number }[] =>
  hinge === 'both'
    ? [
        { jamb: 'start', share: 0.5 },
        { jamb: 'end', share: 0.5 },
      ]
    : [{ jamb: hinge, share: 1 }];

/** The glass of a window, along the middle of its wall. */
export function glassLine(wall: Wall, opening: Opening): Path {
  const frame = frameOf(wall, opening, 'start', 'right');
  return frame
    ? [
        ['M', ...frame(0, 0)],
        ['L', ...frame(opening.width, 0)],
      ]
    : [];
}

/** Leaves are this wide, as shares of what is open to them: what their frames take is left off. */
const LEAVES = [1, 0.95, 0.9, 0.85];
/** Where in the wall they hang, in half thicknesses. */
const HUNG = [1, 0, -1];
/** Share of what frames take that is on the side of the hinge. */
const FRAME_SHARE = 0.5;
/** Where on the arc a line must be, and how far it may stray, as a share of the opening. */
const LOOKED_AT_RAD = [15, 30, 45, 60, 75].map((deg) => (deg * Math.PI) / 180);
const STRAY = 0.05;

/** How a door swings by the arc that is drawn beside it. @param lines of the plan; null where there is no such arc */
export function drawnSwing(
  wall: Wall,
  opening: Opening,
  lines: { readonly grid: SegmentGrid; readonly segments: Float64Array },
): Swing | null {
  let best: Swing | null = null;
  let least = STRAY * opening.width;
  for (const hinge of HINGES) {
    for (const side of SWING_SIDES) {
      for (const narrowed of LEAVES) {
        for (const hung of HUNG) {
          const arc = leavesAt(hinge).flatMap(({ jamb, share }) => {
            const frame = frameOf(wall, opening, jamb, side);
            const [room, leaf] = [share * opening.width, narrowed * share * opening.width];
            return LOOKED_AT_RAD.map((turn) =>
              frame?.(
                (room - leaf) * FRAME_SHARE + leaf * Math.cos(turn),
                (hung * wall.thickness) / 2 + leaf * Math.sin(turn),
              ),
            );
          });
          let stray = 0;
          for (const at of arc) stray = at && stray < least ? Math.max(stray, distanceTo(lines, at, least)) : least;
          if (stray < least) [least, best] = [stray, { hinge, side }];
        }
      }
    }
  }
  return best;
}

/** From a jamb towards the other one, and from the middle line towards a side. */
function frameOf(wall: Wall, opening: Opening, from: 'start' | 'end', side: Swing['side']) {
  const piece = pieceOf(wall, opening.piece);
  if (!piece) return null;
  const { start, way, length } = piece;
  const [along, across] = [from === 'start' ? 1 : -1, side === 'right' ? 1 : -1];
  const jamb = opening.at * length - (along * opening.width) / 2;
  return (inward: number, out: number): [x: number, y: number] => {
    const [s, t] = [jamb + along * inward, across * out];
    return [start[0] + way[0] * s - way[1] * t, start[1] + way[1] * s + way[0] * t];
  };
}

function distanceTo(
  { grid, segments }: { readonly grid: SegmentGrid; readonly segments: Float64Array },
  [x, y]: Spot,
  within: number,
): number {
  let least = within;
  grid.box(x - within, y - within, x + within, y + within, (i) => {
    const [x0, y0, x1, y1] = segments.subarray(4 * i, 4 * i + 4) as unknown as [number, number, number, number];
    least = Math.min(least, distanceToSegment(x, y, x0, y0, x1, y1));
  });
  return least;
}
