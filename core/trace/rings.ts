// rings.ts — closed boundaries of sets of labels, put together from a network's edges, and nested: outlines with holes.
import { pointInRing } from '../outline/apart.ts';
import { boundsOf, ringArea } from '../outline/measure.ts';
import type { Path, Segment } from '../path/types.ts';
import type { Network } from './network.ts';
import { backward, type Stretch } from './stretch.ts';

export interface Piece {
  /** An outline and its holes, to be filled by the even-odd rule. */
  readonly path: Path;
  /** Of the pixels' boundary, in square px, holes taken off. */
  readonly area: number;
  /** Labels along the inside of its boundary. */
  readonly labels: ReadonlySet<number>;
  /** Its boundary through the pixels, outer ring first, flat x, y. */
  readonly rings: readonly Float64Array[];
  /** The edges of its network that bound it, with the piece on their right where they run forward. */
  readonly sides: readonly Side[];
}

/** One closed boundary; outlines have a positive area, holes a negative one. */
export interface TracedRing {
  readonly path: Path;
  readonly points: Float64Array;
  readonly area: number;
  readonly labels?: ReadonlySet<number>;
  readonly sides?: readonly Side[];
}

/** All pieces of the labels that `isInside` takes; those that touch in a corner of pixels stay apart. */
export function piecesOf(network: Network, isInside: (label: number) => boolean): Piece[] {
  const { labels } = network.labels;
  return piecesBeside(network, ({ edge, isForward }) => {
    const { chain } = network.edges[edge]!;
    return isInside(labels[isForward ? chain.right : chain.left]!);
  });
}

/** An edge in one of its two directions, and what lies on its right. */
export interface Side {
  readonly edge: number;
  readonly isForward: boolean;
}

/** All pieces of what lies on the right of the sides that `isInside` takes. */
export function piecesBeside(network: Network, isInside: (side: Side) => boolean): Piece[] {
  return piecesFrom(ringsOf(network, isInside));
}

function ringsOf({ edges, labels: { labels } }: Network, isInside: (side: Side) => boolean): TracedRing[] {
  // (1) Edges between inside and outside, with the inside on the right.
  const halves: Side[] = [];
  const leaving = new Map<number, Side>();
  for (const [edge, { chain }] of edges.entries()) {
    const right = isInside({ edge, isForward: true });
    if (isInside({ edge, isForward: false }) === right) continue;
    const half = { edge, isForward: right };
    halves.push(half);
    const [from, side] = right ? [chain.from, chain.leaves] : [chain.to, chain.enters];
    if (from >= 0) leaving.set(4 * from + side, half);
  }
  // (2) From one to the next: of those that leave a junction, the first to the right.
  const next = ({ edge, isForward }: Side): Side => {
    const { chain } = edges[edge]!;
    const [to, side] = isForward ? [chain.to, chain.enters] : [chain.from, chain.leaves];
    for (let turn = 3; turn > 0; turn--) {
      const half = leaving.get(4 * to + ((side + turn) % 4));
      if (half) return half;
    }
    throw new Error('A boundary ends at a junction.');
  };
  const used = new Set<Side>();
  const rings: TracedRing[] = [];
  for (const half of halves) {
    if (used.has(half)) continue;
    const members: Side[] = [];
    if (edges[half.edge]!.chain.from < 0) members.push(half);
    else
      for (let at = half; !used.has(at); at = next(at)) {
        members.push(at);
        used.add(at);
      }
    used.add(half);
    rings.push(
      ringFrom(
        members.map((member) => ({ ...edges[member.edge]!, ...member })),
        labels,
      ),
    );
  }
  return rings;
}

function ringFrom(
  members: readonly (Side & { chain: Network['edges'][number]['chain']; stretch: Stretch })[],
  labels: Uint8Array,
): TracedRing {
  const path: Segment[] = [];
  const points: number[] = [];
  const inner = new Set<number>();
  let sweep = 0;
  for (const { chain, stretch, isForward } of members) {
    const { start, segments } = isForward ? stretch : backward(stretch);
    if (path.length === 0) path.push(['M', start.x, start.y]);
    path.push(...segments);
    sweep += isForward ? chain.sweep : -chain.sweep;
    inner.add(labels[isForward ? chain.right : chain.left]!);
    points.push(start.x, start.y);
    for (let i = 0; i < chain.points.length; i += 2) {
      const at = isForward ? i : chain.points.length - 2 - i;
      points.push(chain.points[at]!, chain.points[at + 1]!);
    }
  }
  path.push(['Z']);
  const ring = Float64Array.from(points);
  const area = ringArea(ring);
  // Edges of two or three pixels may be placed so that their ring turns inside out; what it is round the pixels counts.
  const sides = members.map(({ edge, isForward }) => ({ edge, isForward }));
  return { path, points: ring, area: area > 0 === sweep > 0 ? area : sweep / 2, labels: inner, sides };
}

/** Outlines with their holes: each goes to the smallest outline around it. */
export function piecesFrom(rings: readonly TracedRing[]): Piece[] {
  const outers = rings.filter(({ area }) => area > 0).sort((a, b) => a.area - b.area);
  const holes = new Map<TracedRing, TracedRing[]>(outers.map((outer) => [outer, []]));
  const boxes = new Map(outers.map((outer) => [outer, boundsOf([outer.points])!]));
  for (const hole of rings) {
    if (hole.area > 0) continue;
    const box = boundsOf([hole.points])!;
    const around = outers.find((outer) => {
      if (outer.area < -hole.area) return false;
      const wide = boxes.get(outer)!;
      const isWithin = box.minX >= wide.minX && box.maxX <= wide.maxX && box.minY >= wide.minY && box.maxY <= wide.maxY;
      return isWithin && holds(outer.points, hole.points);
    });
    if (around) holes.get(around)!.push(hole);
  }
  return outers.map((outer) => {
    const own = [outer, ...holes.get(outer)!];
    return {
      path: own.flatMap(({ path }) => path),
      area: own.reduce((sum, { area }) => sum + area, 0),
      labels: new Set(own.flatMap(({ labels }) => [...(labels ?? [])])),
      rings: own.map(({ points }) => points),
      sides: own.flatMap(({ sides }) => sides ?? []),
    };
  });
}

/** Whether most of a few points spread over one ring lie in the other: they may touch. */
function holds(ring: Float64Array, other: Float64Array): boolean {
  const count = other.length / 2;
  let inside = 0;
  const PROBES = 5;
  for (let k = 0; k < PROBES; k++) {
    const i = Math.floor((k * count) / PROBES);
    if (pointInRing(other[2 * i]!, other[2 * i + 1]!, ring)) inside++;
  }
  return 2 * inside > PROBES;
}
