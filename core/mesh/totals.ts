// totals.ts — what several proofs come to together.
import { countOf, FAULTS, type Fault, type MeshCounts, type Proof } from './proof.ts';

export interface Totals {
  readonly counts: MeshCounts;
  /** Whether all are closed, and how many are. */
  readonly closed: boolean;
  readonly closedParts: number;
  readonly openParts: number;
  /** Of those that are closed. */
  readonly volume: number;
  readonly area: number;
  /** Of the box around all. */
  readonly size: readonly [x: number, y: number, z: number];
  /** How often each fault was found. */
  readonly faults: Readonly<Record<Fault, number>>;
}

/** @param bases how high each mesh stands; 0 where nothing is said */
export function totalsOf(proofs: readonly Proof[], bases: readonly number[] = []): Totals {
  const sum = (pick: (proof: Proof) => number) => proofs.reduce((total, proof) => total + pick(proof), 0);
  const base = (i: number, axis: number) => (axis === 2 ? (bases[i] ?? 0) : 0);
  const low = (axis: number) => Math.min(...proofs.map(({ min }, i) => min[axis]! + base(i, axis)));
  const high = (axis: number) =>
    Math.max(...proofs.map(({ min, size }, i) => min[axis]! + size[axis]! + base(i, axis)));
  const closedParts = proofs.filter(({ closed }) => closed).length;
  return {
    counts: {
      points: sum(({ counts }) => counts.points),
      edges: sum(({ counts }) => counts.edges),
      faces: sum(({ counts }) => counts.faces),
      triangles: sum(({ counts }) => counts.triangles),
    },
    closed: closedParts === proofs.length,
    closedParts,
    openParts: proofs.length - closedParts,
    volume: sum(({ volume }) => volume),
    area: sum(({ area }) => area),
    size: [high(0) - low(0), high(1) - low(1), high(2) - low(2)],
    faults: Object.fromEntries(
      FAULTS.map((fault) => [fault, sum((proof) => countOf(proof, fault))]),
    ) as Totals['faults'],
  };
}
