// tangles.ts — places where the curves of a network cross each other or themselves, and the points of its chains that are
// followed one by one there: as they were placed, and where those cross too, through the middles of the pixels' sides.
import { cross } from '../outline/apart.ts';
import { SegmentGrid } from '../outline/segment-grid.ts';
import type { Vec } from '../path/fit.ts';
import { polylines } from '../path/flatten.ts';
import type { Chain } from './boundary.ts';
import type { Stretch } from './stretch.ts';

interface Tangle {
  readonly at: Vec;
  /** Numbers of the stretches that cross, one twice where it crosses itself. */
  readonly edges: readonly [number, number];
}

/** How closely curves are followed where crossings are looked for, as shares of the tolerance: more finely than by it, and by it. */
const CHORDS = [0.2, 1] as const;

/**
 * Where stretches pass through each other; those that share an end do not there.
 * @param tolerance by which curves are followed later on, px
 */
export const tanglesIn = (stretches: readonly Stretch[], tolerance: number): Tangle[] =>
  CHORDS.flatMap((share) => crossingsIn(stretches, share * tolerance));

function crossingsIn(stretches: readonly Stretch[], chords: number): Tangle[] {
  const lines = stretches.map(
    ({ start, segments }) => polylines([['M', start.x, start.y], ...segments], chords)[0]!.points,
  );
  const total = lines.reduce((sum, line) => sum + line.length / 2 - 1, 0);
  const s = new Float64Array(4 * total);
  const edgeOf = new Uint32Array(total);
  let n = 0;
  for (const [edge, line] of lines.entries()) {
    for (let i = 0; i + 2 < line.length; i += 2) {
      edgeOf[n] = edge;
      s.set(line.subarray(i, i + 4), 4 * n++);
    }
  }
  const grid = new SegmentGrid(s);
  const found: Tangle[] = [];
  for (let i = 0; i < s.length; i += 4) {
    const [ax, ay, bx, by] = [s[i]!, s[i + 1]!, s[i + 2]!, s[i + 3]!];
    grid.box(Math.min(ax, bx), Math.min(ay, by), Math.max(ax, bx), Math.max(ay, by), (other) => {
      const j = 4 * other;
      if (j <= i) return;
      const [cx, cy, dx, dy] = [s[j]!, s[j + 1]!, s[j + 2]!, s[j + 3]!];
      if (!cross(ax, ay, bx, by, cx, cy, dx, dy)) return;
      const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / ((bx - ax) * (dy - cy) - (by - ay) * (dx - cx));
      found.push({
        at: { x: ax + t * (bx - ax), y: ay + t * (by - ay) },
        edges: [edgeOf[i / 4]!, edgeOf[other]!],
      });
    });
  }
  return found;
}

/** How points of a chain are followed: by curves that may stray, or one by one. */
export const FOLLOWED = { loosely: 0, asPlaced: 1, betweenPixels: 2 } as const;
type Followed = (typeof FOLLOWED)[keyof typeof FOLLOWED];

interface Hold {
  readonly reach: number;
  readonly followed: Followed;
}

/** How far around a tangle points are followed one by one, px, and how: further and more strictly where that does not help. */
const HOLDS: readonly Hold[] = [
  { reach: 2, followed: FOLLOWED.asPlaced },
  { reach: 4, followed: FOLLOWED.asPlaced },
  { reach: 4, followed: FOLLOWED.betweenPixels },
  { reach: 8, followed: FOLLOWED.betweenPixels },
  { reach: 16, followed: FOLLOWED.betweenPixels },
];

/** Which points of which chains are followed one by one. */
export class Holds {
  private readonly points = new Map<Chain, Uint8Array>();
  private readonly junctions: Float64Array;
  private readonly isHeld: Uint8Array;

  /** @param junctions flat x, y */
  constructor(junctions: Float64Array) {
    this.junctions = junctions;
    this.isHeld = new Uint8Array(junctions.length / 2);
  }

  /** Whether a junction stays at its corner of pixels, and the points beside it are kept. */
  holds(junction: number): boolean {
    return this.isHeld[junction] === 1;
  }

  /** How each point of a chain is followed; null where all are loosely. */
  of(chain: Chain): Uint8Array | null {
    return this.points.get(chain) ?? null;
  }

  /**
   * Holds what lies near to each tangle, by the first of {@link HOLDS} that is not in force there yet.
   * @param chains of the stretches
   * @returns the chains that are followed otherwise now
   */
  add(tangles: readonly Tangle[], chains: readonly Chain[]): ReadonlySet<Chain> {
    const changed = new Set<Chain>();
    const held = new Set<number>();
    // All are looked at before any is held: two tangles in one place are one.
    const wanted = tangles.map((tangle) => ({
      tangle,
      hold: HOLDS.find((hold) => this.wouldHold(tangle, chains, hold)),
    }));
    for (const { tangle, hold } of wanted) if (hold) this.hold(tangle, chains, hold, changed, held);
    for (const chain of chains) if (held.has(chain.from) || held.has(chain.to)) changed.add(chain);
    return changed;
  }

  /** The chains that cross, and all that meet them near there. */
  private involved({ at, edges }: Tangle, chains: readonly Chain[], reach: number): Chain[] {
    const own = edges.map((edge) => chains[edge]!);
    const near = new Set(own.flatMap((chain) => this.junctionsNear(chain, at, reach)));
    return near.size === 0 ? own : [...own, ...chains.filter(({ from, to }) => near.has(from) || near.has(to))];
  }

  private wouldHold(tangle: Tangle, chains: readonly Chain[], { reach, followed }: Hold): boolean {
    const { at } = tangle;
    return this.involved(tangle, chains, reach).some((chain) => {
      const marks = this.points.get(chain);
      return (
        this.pointsNear(chain, at, reach).some((i) => (marks?.[i] ?? 0) < followed) ||
        this.junctionsNear(chain, at, reach).some((junction) => !this.holds(junction))
      );
    });
  }

  private hold(
    tangle: Tangle,
    chains: readonly Chain[],
    { reach, followed }: Hold,
    changed: Set<Chain>,
    held: Set<number>,
  ): void {
    const { at } = tangle;
    for (const chain of this.involved(tangle, chains, reach)) {
      const marks = this.points.get(chain) ?? new Uint8Array(chain.points.length / 2);
      for (const i of this.pointsNear(chain, at, reach)) {
        if (marks[i]! >= followed) continue;
        marks[i] = followed;
        changed.add(chain);
      }
      this.points.set(chain, marks);
      for (const junction of this.junctionsNear(chain, at, reach)) {
        if (this.holds(junction)) continue;
        this.isHeld[junction] = 1;
        held.add(junction);
      }
    }
  }

  private pointsNear({ points }: Chain, { x, y }: Vec, reach: number): number[] {
    const near: number[] = [];
    for (let i = 0; i < points.length; i += 2) {
      if (Math.hypot(points[i]! - x, points[i + 1]! - y) <= reach) near.push(i / 2);
    }
    return near;
  }

  private junctionsNear({ from, to }: Chain, { x, y }: Vec, reach: number): number[] {
    return [from, to].filter((junction) => {
      const [u, v] = [this.junctions[2 * junction], this.junctions[2 * junction + 1]];
      return junction >= 0 && Math.hypot(u! - x, v! - y) <= reach;
    });
  }
}
