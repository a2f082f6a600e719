// pieces.ts — outlines that are to stand out of a front or sink into it: cut to where they lie on it, and each put on what it lies on.
import { fillRegions } from '../../outline/arrangement.ts';
import { inflate } from '../../outline/clipper.ts';
import { gridFor, toGrid } from '../../outline/grid.ts';
import { boundsOf, regionsArea, ringsOf } from '../../outline/measure.ts';
import { insetRegions } from '../../outline/offset.ts';
import { sharedRegions } from '../../outline/overlap.ts';
import { fromGridRegions, regionsOf } from '../../outline/regions.ts';
import type { Region } from '../../outline/types.ts';

/** A piece of a front that has a height of its own. */
export interface FrontPiece {
  readonly region: Region;
  /** Which of the lists of outlines it comes from. */
  readonly step: number;
  /** Pieces that lie on it. */
  readonly on: FrontPiece[];
}

/** Pieces keep this far from each other and from the rim, as a share of the extent: there have to be walls between. */
const GAP_SHARE = 1e-3;
/** Less than this share of a piece beside another is rounding. */
const ROUNDING = 1e-5;

/**
 * @param front what is flat
 * @param steps outlines, list by list; where two overlap, the smaller lies on the larger, or is cut off where it comes over its rim
 * @param extent longest side of all that is built together
 * @returns pieces on the front; each lies inside of what it is on, none meets another
 */
export function piecesOn(
  front: readonly Region[],
  steps: readonly (readonly Region[])[],
  extent: number,
): FrontPiece[] {
  const gap = GAP_SHARE * extent;
  const room = insetRegions(front, gap, 0);
  const wanted = steps.flatMap((regions, step) =>
    settled(sharedRegions(regions, room)).map((region) => ({ region, step, area: regionsArea([region]) })),
  );
  const pieces: FrontPiece[] = [];
  for (const { region, step } of wanted.sort((a, b) => b.area - a.area)) place([region], step, pieces, gap);
  return pieces;
}

/** Puts regions on the pieces that they lie within, and the rest beside all of them. */
function place(regions: readonly Region[], step: number, pieces: FrontPiece[], gap: number): void {
  let left = regions;
  for (const piece of pieces.slice()) {
    const own = [piece.region];
    left = left.flatMap((region) => {
      const shared = regionsArea(sharedRegions([region], own));
      if (shared >= (1 - ROUNDING) * regionsArea([region])) {
        place(settled(sharedRegions([region], insetRegions(own, gap, 0))), step, piece.on, gap);
        return [];
      }
      return without([region], own, gap);
    });
  }
  for (const region of left) pieces.push({ region, step, on: [] });
}

/** What is further from some regions than the gap. */
function without(regions: readonly Region[], others: readonly Region[], gap: number): Region[] {
  const { minX, minY, maxX, maxY } = boundsOf(ringsOf(others))!;
  // What is made wider has to lie on the grid as well.
  const room = Float64Array.of(minX - 2 * gap, minY - 2 * gap, maxX + 2 * gap, maxY + 2 * gap);
  const grid = gridFor([...ringsOf(regions), ...ringsOf(others), room]);
  const onGrid = (list: readonly Region[]) => ringsOf(list).map((ring) => toGrid(ring, grid));
  const around = inflate(onGrid(others), gap / grid.step);
  const rest = fillRegions([...onGrid(regions), ...around.map((path) => path.toReversed())], 'positive');
  return settled(fromGridRegions(rest, grid));
}

/** As `regionsOf` has them: without slivers, and without rings that touch. */
const settled = (regions: readonly Region[]): Region[] => regionsOf(ringsOf(regions), 'positive');
