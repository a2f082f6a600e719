// sections.ts — the triangles of a mesh sorted by what their sides are made of.
import { faceCount, type Mesh } from './types.ts';

export interface Section {
  /** Which of the lists of sides. */
  readonly of: number;
  /** Into the sorted indices, in threes. */
  readonly start: number;
  readonly count: number;
}

/**
 * @param indices three a triangle, in the order of the faces
 * @param sectionOf by side: the section that its faces belong to
 * @returns indices in the order of the sections, and where each begins; empty ones are left out
 */
export function sorted(
  mesh: Mesh,
  indices: Uint32Array,
  sectionOf: readonly number[],
): { indices: Uint32Array; sections: Section[] } {
  const { starts, sides } = mesh;
  const counts: number[] = [];
  const sizeOf = (f: number) => 3 * (starts[f + 1]! - starts[f]! - 2);
  for (let f = 0; f < faceCount(mesh); f++) {
    const of = sectionOf[sides[f]!]!;
    counts[of] = (counts[of] ?? 0) + sizeOf(f);
  }
  const ends: number[] = [];
  const sections: Section[] = [];
  let start = 0;
  for (let of = 0; of < counts.length; of++) {
    const count = counts[of] ?? 0;
    ends[of] = start;
    if (count > 0) sections.push({ of, start, count });
    start += count;
  }
  const result = new Uint32Array(indices.length);
  for (let f = 0, at = 0; f < faceCount(mesh); f++) {
    const of = sectionOf[sides[f]!]!;
    const size = sizeOf(f);
    result.set(indices.subarray(at, at + size), ends[of]!);
    ends[of]! += size;
    at += size;
  }
  return { indices: result, sections };
}
