// ends.ts — lines: gaps between their ends, outlines left open, lines that stand alone, points of no length.
import { gapsBetween, looseEnds } from '../outline/ends.ts';
import { lengthOf } from '../path/length.ts';
import { type Finding, finding } from './finding.ts';
import { type CheckedShape, middleOf, type Subject } from './subject.ts';

/** Ends further apart than this share of the drawing are no gap but two ends. */
const GAP_SHARE = 0.03;
/** A gap this narrow cannot be meant. */
const SAFE_GAP_SHARE = 0.005;
/** Ends nearer than this share are one place already. */
const SAME_SHARE = 1e-9;

/** Gaps between ends of lines. */
export function gaps({ shapes, size }: Subject): Finding[] {
  const lines = shapes.filter(({ shape }) => shape.stroke);
  const ends = looseEnds(lines.map(({ shape }) => shape.path));
  const found = gapsBetween(ends, GAP_SHARE * size)
    .filter((gap) => gap.size > SAME_SHARE * size)
    .map(({ a, b, size: width }) => ({
      shapes: [lines[a.path]!.shape.id, lines[b.path]!.shape.id],
      place: [(a.x + b.x) / 2, (a.y + b.y) / 2] as const,
      size: width,
    }));
  const widest = found.at(-1)?.size ?? 0;
  return finding('gap', found, (ids) => ({ do: 'close', shapes: ids, gap: widest }), widest <= SAFE_GAP_SHARE * size);
}

/** Filled outlines that do not come back to where they began. Filling closes them straight, and so does the mend. */
export function open({ shapes, size }: Subject): Finding[] {
  let widest = 0;
  const found = shapes.flatMap(({ shape, contours }) =>
    shape.stroke
      ? []
      : contours.flatMap(({ contour }) => {
          const last = contour.pieces.at(-1)?.cubic;
          if (contour.isClosed || !last || contour.pieces.length < 2) return [];
          const gap = Math.hypot(last[6] - contour.start[0], last[7] - contour.start[1]);
          widest = Math.max(widest, gap);
          return gap > SAME_SHARE * size ? [{ shapes: [shape.id], place: contour.start, size: gap }] : [];
        }),
  );
  return finding('open', found, (ids) => ({ do: 'close', shapes: ids, gap: widest }), true);
}

/** Single straight lines that nothing else comes near, and filled outlines that are only a line. */
export function strays({ shapes, size }: Subject): Finding[] {
  const lines = shapes.filter((checked) => isSingleLine(checked));
  const found = lines.filter(({ shape, bounds }) => {
    if (!shape.stroke) return true;
    const reach = 0.02 * size + shape.stroke.width;
    return !shapes.some(
      ({ shape: other, bounds: box }) =>
        other !== shape &&
        box.minX <= bounds.maxX + reach &&
        box.maxX >= bounds.minX - reach &&
        box.minY <= bounds.maxY + reach &&
        box.maxY >= bounds.minY - reach,
    );
  });
  return finding(
    'stray',
    found.map(({ shape, bounds }) => ({ shapes: [shape.id], place: middleOf(bounds) })),
    (ids) => ({ do: 'remove', shapes: ids }),
    found.every(({ shape }) => !shape.stroke),
  );
}

function isSingleLine({ shape, contours }: CheckedShape): boolean {
  const [only, ...others] = contours;
  if (!only || others.length > 0 || only.contour.pieces.length === 0) return false;
  const isStraight = only.contour.pieces.every(({ isLine }) => isLine) && only.ring.length <= 4;
  return isStraight && (shape.stroke ? !only.contour.isClosed : true);
}

/** Shapes of no length, which draw nothing. A stroke with round or square ends draws a dot and is meant. */
export function points({ shapes, size }: Subject): Finding[] {
  const found = shapes.filter(({ shape, contours }) => {
    const isDot = shape.stroke && shape.stroke.cap !== 'butt';
    return (
      !isDot && contours.every(({ contour }) => contour.pieces.every((piece) => lengthOf(piece) <= SAME_SHARE * size))
    );
  });
  return finding(
    'point',
    found.map(({ shape, bounds }) => ({ shapes: [shape.id], place: middleOf(bounds) })),
    (ids) => ({ do: 'remove', shapes: ids }),
    true,
  );
}
