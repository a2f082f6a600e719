// tangles.ts — places where the curves of a network cross each other or themselves, and the points of its chains that are
// followed one by one there: as they were placed, and where those cross too, through the middles of the pixels' sides.
import { eachCrossing } from '../outline/apart.ts';
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
  const found: Tangle[] = [];
  eachCrossing(s, (i, j, x, y) => {
    found.push({ at: { x, y }, edges: [edgeOf[i]!, edgeOf[j]!] });
    return true;
  });
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
  private readonly chains: readonly Chain[];
  private readonly points = new Map<Chain, Uint8Array>();
  private readonly junctions: Float64Array;
  private readonly isHeld: Uint8Array;

  /** @param junctions flat x, y */
  constructor(chains: readonly Chain[], junctions: Float64Array) {
    this.chains = chains;
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
   * @param tangles of the chains' stretches
   * @returns the chains that are followed otherwise now
   */
  add(tangles: readonly Tangle[]): ReadonlySet<Chain> {
    const changed = new Set<Chain>();
    const held = new Set<number>();
    // All are looked at before any is held: two tangles in one place are one.
    const wanted = tangles.map((tangle) => {
      for (const hold of HOLDS) {
        const loose = this.looseNear(tangle, hold);
        if (loose.points.length + loose.junctions.length > 0) return { ...loose, followed: hold.followed };
      }
      return { points: [], junctions: [], followed: FOLLOWED.loosely };
    });
    for (const { points, junctions, followed } of wanted) {
      for (const { chain, i } of points) {
        const marks = this.points.get(chain) ?? new Uint8Array(chain.points.length / 2);
        marks[i] = Math.max(marks[i]!, followed);
        this.points.set(chain, marks);
        changed.add(chain);
      }
      for (const junction of junctions) {
        this.isHeld[junction] = 1;
        held.add(junction);
      }
    }
    for (const chain of this.chains) if (held.has(chain.from) || held.has(chain.to)) changed.add(chain);
    return changed;
  }

  /** What near a tangle is not held that way yet, of the chains that cross and of all that meet them near there. */
  private looseNear({ at, edges }: Tangle, { reach, followed }: Hold) {
    const isNear = (x: number, y: number) => Math.hypot(x - at.x, y - at.y) <= reach;
    const junctionsOf = ({ from, to }: Chain) =>
      [from, to].filter((k) => k >= 0 && isNear(this.junctions[2 * k]!, this.junctions[2 * k + 1]!));
    const own = edges.map((edge) => this.chains[edge]!);
    const near = new Set(own.flatMap(junctionsOf));
    const around = this.chains.filter((chain) => own.includes(chain) || near.has(chain.from) || near.has(chain.to));
    const points: { chain: Chain; i: number }[] = [];
    for (const chain of around) {
      const marks = this.of(chain);
      for (let i = 0; 2 * i < chain.points.length; i++) {
        const isLoose = (marks?.[i] ?? FOLLOWED.loosely) < followed;
        if (isLoose && isNear(chain.points[2 * i]!, chain.points[2 * i + 1]!)) points.push({ chain, i });
      }
    }
    return { points, junctions: around.flatMap(junctionsOf).filter((junction) => !this.holds(junction)) };
  }
}
