// looks.ts — shapes by their looks: too small to matter, lettering that came along, outlines without a fill, white on
// white, the paper behind the drawing.
import { converter } from 'culori';
import { pointInRings } from '../outline/apart.ts';
import { isDust } from '../outline/dust.ts';
import { ringArea } from '../outline/measure.ts';
import type { Bounds, Ring } from '../outline/types.ts';
import { type Finding, finding } from './finding.ts';
import { type CheckedContour, type CheckedShape, middleOf, type Subject } from './subject.ts';

const toOklab = converter('oklab');

/** Shapes whose box is smaller than this share of the drawing's size. */
const TINY_SHARE = 0.004;

export function tiny({ shapes, size }: Subject): Finding[] {
  const found = shapes.filter(({ shape, bounds, contours }) => {
    const side = sideOf(bounds) + (shape.stroke?.width ?? 0);
    return side < TINY_SHARE * size && contours.some(({ contour }) => contour.pieces.length > 0);
  });
  return finding(
    'tiny',
    found.map(({ shape, bounds, contours }) => ({
      shapes: [shape.id],
      place: middleOf(bounds),
      size: Math.abs(contours.reduce((sum, { area }) => sum + area, 0)),
    })),
    (ids) => ({ do: 'remove', shapes: ids }),
    false,
  );
}

/** Contours that are smaller than curves are followed at first, and are not built: whole shapes can be removed, the rest is told of. */
export function dust({ shapes, tolerance }: Subject): Finding[] {
  const isSpeck = ({ ring, contour }: CheckedContour) => contour.isClosed && isDust(ring, tolerance);
  const filled = shapes.filter(({ shape }) => !shape.stroke);
  const whole = filled.filter(({ contours }) => contours.every(isSpeck));
  return finding(
    'dust',
    filled.flatMap(({ shape, contours }) =>
      contours.filter(isSpeck).map(({ bounds, area }) => ({
        shapes: [shape.id],
        place: middleOf(bounds),
        size: Math.abs(area),
      })),
    ),
    () => (whole.length > 0 ? { do: 'remove', shapes: whole.map(({ shape }) => shape.id) } : null),
    true,
  );
}

const sideOf = ({ minX, minY, maxX, maxY }: Bounds) => Math.max(maxX - minX, maxY - minY);

/** Letters are at most this share of the drawing high, and at least so many stand in a row. */
const LETTER_SHARE = 0.06;
const LEAST_LETTERS = 5;
/** How far feet may be off the baseline, and letters apart, in heights. */
const BASELINE = 0.2;
const SPACING = 1.6;

/** Rows of small shapes of like height on one line. */
export function lettering({ shapes, size }: Subject): Finding[] {
  const small = shapes
    .filter(({ shape, bounds }) => !shape.stroke && sideOf(bounds) < LETTER_SHARE * size && heightOf(bounds) > 0)
    .sort((a, b) => a.bounds.minX - b.bounds.minX);
  const rows: CheckedShape[][] = [];
  for (const letter of small) {
    const height = heightOf(letter.bounds);
    const row = rows.find((candidate) => {
      const last = candidate.at(-1)!.bounds;
      const tall = Math.max(height, heightOf(last));
      // Feet on a line: y runs down.
      const isOnLine = Math.abs(letter.bounds.maxY - last.maxY) < BASELINE * tall;
      const isNext = letter.bounds.minX - last.maxX < SPACING * tall && letter.bounds.minX >= last.minX;
      return isOnLine && isNext && Math.min(height, heightOf(last)) > 0.45 * tall;
    });
    if (row) row.push(letter);
    else rows.push([letter]);
  }
  const words = rows.filter(
    (row) => row.length >= LEAST_LETTERS && new Set(row.map(({ shape }) => shape.colour)).size === 1,
  );
  return finding(
    'lettering',
    words.map((row) => ({ shapes: row.map(({ shape }) => shape.id), place: middleOf(row[0]!.bounds) })),
    (ids) => ({ do: 'remove', shapes: ids }),
    false,
  );
}

const heightOf = ({ minY, maxY }: Bounds) => maxY - minY;

/** Closed outlines that are drawn as lines: what is inside them has no fill. */
export function unfilled({ shapes }: Subject): Finding[] {
  const found = shapes.filter(
    ({ shape, contours }) => shape.stroke && contours.some(({ contour, area }) => contour.isClosed && area !== 0),
  );
  return finding(
    'unfilled',
    found.map(({ shape, bounds }) => ({ shapes: [shape.id], place: middleOf(bounds) })),
    (ids) => ({ do: 'restyle', shapes: ids, stroke: null }),
    false,
  );
}

/** Paper: this light, this colourless (OKLab), and covering this much of the sheet. */
const PAPER = { lightness: 0.93, chroma: 0.03, cover: 0.97 } as const;

function isPale(colour: string): boolean {
  const lab = toOklab(colour);
  return lab !== undefined && lab.l >= PAPER.lightness && Math.hypot(lab.a, lab.b) <= PAPER.chroma;
}

const coversSheet = ({ contours }: CheckedShape, { width, height }: Subject['sheet']) =>
  Math.abs(contours.reduce((sum, { area }) => sum + area, 0)) >= PAPER.cover * width * height;

/** Beside a shape it is looked at what it lies on: this far from its outline, as a share of the drawing's size, in so many places. */
const [BESIDE, PLACES] = [0.002, 12];

/** White shapes that lie on white, on which they cannot be seen. */
export function pale(subject: Subject): Finding[] {
  const { shapes, sheet, size } = subject;
  const dark = shapes
    .filter(({ shape }) => !shape.stroke && !isPale(shape.colour))
    .map(({ bounds, contours }) => ({ bounds, rings: contours.map(({ ring }) => ring) }));
  const isOnWhite = ({ contours }: CheckedShape) => {
    const { ring } = contours.reduce((most, next) => (next.ring.length > most.ring.length ? next : most));
    const places = placesAround(ring, BESIDE * size, PLACES);
    const seen = places.filter(([x, y]) =>
      dark.some(({ bounds, rings }) => isWithin(bounds, x, y) && pointInRings(x, y, rings)),
    );
    return 2 * seen.length <= places.length;
  };
  const found = shapes.filter(
    (checked) => isPale(checked.shape.colour) && !coversSheet(checked, sheet) && isOnWhite(checked),
  );
  return finding(
    'pale',
    found.map(({ shape, bounds }) => ({ shapes: [shape.id], place: middleOf(bounds) })),
    () => null,
    false,
  );
}

/** Places spread along a ring, a little to its outside, or to its inside where it is a hole. */
function placesAround(ring: Ring, gap: number, count: number): [x: number, y: number][] {
  const outward = ringArea(ring) < 0 ? -gap : gap;
  const corners = ring.length / 2;
  const places = Math.min(corners, count);
  return Array.from({ length: places }, (_, k) => {
    const i = 2 * Math.floor((k * corners) / places);
    const j = (i + 2) % ring.length;
    const [dx, dy] = [ring[j]! - ring[i]!, ring[j + 1]! - ring[i + 1]!];
    const length = Math.hypot(dx, dy) || 1;
    return [
      (ring[i]! + ring[j]!) / 2 + (outward * dy) / length,
      (ring[i + 1]! + ring[j + 1]!) / 2 - (outward * dx) / length,
    ];
  });
}

const isWithin = ({ minX, minY, maxX, maxY }: Bounds, x: number, y: number) =>
  x >= minX && x <= maxX && y >= minY && y <= maxY;

/** The paper that came along: the lowest shape, as large as the sheet and as light. */
export function ground({ shapes, sheet }: Subject): Finding[] {
  const [lowest] = shapes;
  const isGround = lowest && shapes.length > 1 && isPale(lowest.shape.colour) && coversSheet(lowest, sheet);
  const found = isGround ? [{ shapes: [lowest.shape.id], place: middleOf(lowest.bounds) }] : [];
  return finding('ground', found, (ids) => ({ do: 'remove', shapes: ids }), false);
}
