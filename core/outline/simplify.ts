// simplify.ts — drops points that change nothing, on the grid.
import type { GridPath, GridPoint } from './arrangement.ts';
import { MIN_EDGE } from './touches.ts';

/** Corners nearer than this to the line between their neighbours are dropped: 1.8e-7 of the size. */
const STRAIGHT = 12;

/** The ring without negligible corners; shorter than 3 points when nothing of it remains. */
export function dropNegligible(ring: GridPath): GridPath {
  let kept = ring;
  // Dropping one corner can make its neighbour negligible; passes are few because each must drop at least one.
  for (;;) {
    const next = kept.length >= 3 ? pass(kept) : [];
    if (next.length === kept.length || next.length < 3) return next.length < 3 ? [] : next;
    kept = next;
  }
}

function pass(ring: GridPath): GridPath {
  const n = ring.length;
  // Most rings have none.
  if (!ring.some((p, i) => isNegligible(ring[i === 0 ? n - 1 : i - 1]!, p, ring[i + 1 === n ? 0 : i + 1]!)))
    return ring;
  const result: GridPoint[] = [];
  let skipped = false;
  let isFirstSkipped = false;
  for (let i = 0; i < n; i++) {
    const a = result.at(-1) ?? ring[n - 1]!;
    const p = ring[i]!;
    const b = ring[(i + 1) % n]!;
    // Never two in a row in one pass, round the end too: each decision then rests on neighbours that stay.
    skipped = !skipped && !(i === n - 1 && isFirstSkipped) && isNegligible(a, p, b);
    if (i === 0) isFirstSkipped = skipped;
    if (!skipped) result.push(p);
  }
  return result;
}

function isNegligible(a: GridPoint, p: GridPoint, b: GridPoint): boolean {
  const [dx, dy] = [b.x - a.x, b.y - a.y];
  const [px, py] = [p.x - a.x, p.y - a.y];
  const squared = dx * dx + dy * dy;
  if (px * px + py * py < MIN_EDGE * MIN_EDGE || squared < MIN_EDGE * MIN_EDGE) return true;
  const along = px * dx + py * dy;
  return along > 0 && along < squared && Math.abs(px * dy - py * dx) < STRAIGHT * Math.sqrt(squared);
}
