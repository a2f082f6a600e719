// profile.ts — the shape of an edge between wall and front, as rows from the wall (row 0) to the front (last row).

export const PROFILES = ['chamfer', 'round'] as const;
export type Profile = (typeof PROFILES)[number];

/** Row k lies `insets[k]` of the reach inside the outline and `heights[k]` of the rise above the wall; both run 0 → 1. */
export interface ProfileRows {
  readonly insets: readonly number[];
  readonly heights: readonly number[];
}

/**
 * Rows of a profile.
 * @param steps strips of faces across the edge, ≥ 1. `round` is a quarter ellipse in equal angles, so it leaves the wall
 * upright and arrives flat at the front.
 */
export function profileRows(profile: Profile, steps: number): ProfileRows {
  const shares = Array.from({ length: steps + 1 }, (_, k) => k / steps);
  if (profile === 'chamfer') return { insets: shares, heights: shares };
  const angles = shares.map((share) => (share * Math.PI) / 2);
  return {
    insets: angles.map((angle, k) => (k === steps ? 1 : 1 - Math.cos(angle))),
    heights: angles.map((angle, k) => (k === steps ? 1 : Math.sin(angle))),
  };
}
