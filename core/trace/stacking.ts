// stacking.ts — what lies on what: a piece that does not reach the ground is enclosed by others and lies on them, as cut paper does;
// pieces side by side lie side by side.
import type { Network } from './network.ts';
import { type Piece, piecesBeside, type Side } from './rings.ts';

export interface Stacked extends Piece {
  /** On how many others it lies, one upon the other. */
  readonly tier: number;
}

/** A common border of this many points with what is not built, and of this share of all borders of a piece, is none by chance. */
const [REACHES, REACHES_SHARE] = [2, 0.02];
/** What is not built: the ground, and what lies beyond the sheet; and holes to see through, which are no place to reach. */
const [BARE, HOLE] = [-1, -2];
const OPEN = -1;

/** Points that pieces have in common, by the number of the other one. */
type Borders = ReadonlyMap<number, number>;

/**
 * Pieces as they lie on each other: each goes on beneath what lies on it. What has the colour of what it lies on, or is seen through
 * a hole of a piece and has the colour of what that lies on, is that, and no piece of its own.
 * @param pieces side by side, each a colour's own; all that is built
 * @param holes pieces of what can be seen through and does not reach the border of the sheet
 * @param isAlike whether two pieces have one colour
 * @returns in the order of `pieces`; null for what is a part of another one
 */
export function stackedPieces(
  network: Network,
  pieces: readonly Piece[],
  holes: readonly Piece[],
  isAlike: (a: number, b: number) => boolean,
): (Stacked | null)[] {
  const owners = ownersOf(network, pieces);
  for (const { sides } of holes) for (const side of sides) owners[slot(side)] = HOLE;
  let stand = standing(bordersOf(network, owners, pieces.length));
  for (let seen = seenThrough(stand, isAlike); seen.size > 0; seen = seenThrough(stand, isAlike)) {
    for (const [k, owner] of owners.entries()) owners[k] = seen.get(owner) ?? owner;
    stand = standing(bordersOf(network, owners, pieces.length));
  }
  const { tiers, hosts } = stand;
  const isHost = new Set(hosts);
  return pieces.map((piece, i): Stacked | null => {
    const tier = tiers[i]!;
    if (tier === OPEN) return null;
    if (!isHost.has(i)) return { ...piece, tier };
    const isBeneath = (upper: number) => {
      let at = upper;
      while (at !== i && at >= 0) at = hosts[at]!;
      return at === i;
    };
    // What lies on it may have holes to see through; all the rest of it hangs together.
    const whole = piecesBeside(network, (side) => isBeneath(owners[slot(side)]!));
    return { ...whole.reduce((most, next) => (next.area > most.area ? next : most)), tier };
  });
}

/**
 * What is seen through holes or beside what lies on its own colour, and what of; the lowest first, which what lies on it depends
 * on.
 */
function seenThrough(
  { hosts, borders, tiers }: Standing,
  isAlike: (a: number, b: number) => boolean,
): Map<number, number> {
  const seen = new Map<number, number>();
  for (const [i, host] of hosts.entries()) {
    if (host >= 0 && isAlike(i, host)) {
      seen.set(i, host);
      continue;
    }
    const below = host >= 0 ? hosts[host]! : BARE;
    const isHole = [...borders[i]!.keys()].every(
      (other) => other === host || (other >= 0 && tiers[other]! > tiers[i]!),
    );
    if (below >= 0 && isHole && isAlike(i, below)) seen.set(i, below);
  }
  const lowest = Math.min(...Array.from(seen.keys(), (i) => tiers[i]!));
  return new Map([...seen].filter(([i]) => tiers[i] === lowest));
}

const slot = ({ edge, isForward }: Side) => 2 * edge + Number(isForward);

/** The piece on the right of each edge, forward and backward. */
function ownersOf({ edges }: Network, pieces: readonly Piece[]): Int32Array {
  const owners = new Int32Array(2 * edges.length).fill(BARE);
  for (const [i, { sides }] of pieces.entries()) for (const side of sides) owners[slot(side)] = i;
  return owners;
}

function bordersOf({ edges }: Network, owners: Int32Array, count: number): Borders[] {
  const borders = Array.from({ length: count }, () => new Map<number, number>());
  for (const [edge, { chain }] of edges.entries()) {
    const [a, b] = [owners[2 * edge]!, owners[2 * edge + 1]!];
    const points = 1 + chain.points.length / 2;
    if (a === HOLE || b === HOLE || a === b) continue;
    if (a !== BARE) borders[a]!.set(b, (borders[a]!.get(b) ?? 0) + points);
    if (b !== BARE) borders[b]!.set(a, (borders[b]!.get(a) ?? 0) + points);
  }
  return borders;
}

interface Standing {
  readonly borders: readonly Borders[];
  /** Of each piece, {@link OPEN} for those that are parts of others. */
  readonly tiers: Int16Array;
  /** The piece that goes on beneath each. */
  readonly hosts: Int32Array;
}

function standing(borders: readonly Borders[]): Standing {
  const tiers = new Int16Array(borders.length).fill(OPEN);
  const hosts = new Int32Array(borders.length).fill(BARE);
  let open = [...borders.keys()].filter((i) => borders[i]!.size > 0);
  for (let tier = 0; open.length > 0; tier++) {
    const reached = open.filter((i) => reaches(borders[i]!, (other) => other === BARE || tiers[other] !== OPEN));
    // Where all reach no more than a point of what is outside, all begin.
    for (const i of reached.length > 0 ? reached : open) tiers[i] = tier;
    open = open.filter((i) => tiers[i] === OPEN);
    for (const cluster of clustersOf(open, borders, tiers)) {
      const host = longest(cluster, borders, (other) => other !== BARE && tiers[other] === tier);
      for (const i of cluster) hosts[i] = host;
    }
  }
  return { borders, tiers, hosts };
}

function reaches(borders: Borders, isOutside: (other: number) => boolean): boolean {
  let [all, outside] = [0, 0];
  for (const [other, points] of borders) {
    all += points;
    if (isOutside(other)) outside += points;
  }
  return outside >= REACHES && outside >= REACHES_SHARE * all;
}

/** Open pieces that hang together. */
function clustersOf(open: readonly number[], borders: readonly Borders[], tiers: Int16Array): number[][] {
  const seen = new Set<number>();
  return open.flatMap((start) => {
    if (seen.has(start)) return [];
    seen.add(start);
    const cluster = [start];
    for (const i of cluster) {
      for (const other of borders[i]!.keys()) {
        if (other === BARE || tiers[other] !== OPEN || seen.has(other)) continue;
        seen.add(other);
        cluster.push(other);
      }
    }
    return [cluster];
  });
}

/** The piece that a cluster borders on most; {@link BARE} for none. */
function longest(cluster: readonly number[], borders: readonly Borders[], isHost: (other: number) => boolean): number {
  const points = new Map<number, number>();
  for (const i of cluster) {
    for (const [other, n] of borders[i]!) if (isHost(other)) points.set(other, (points.get(other) ?? 0) + n);
  }
  return [...points].reduce((most, next) => (next[1] > most[1] ? next : most), [BARE, 0])[0];
}
