// recentre.ts — drawings that lie far from the origin, as surveys do, are moved to it: coordinates of ten million leave no
// digits for the shapes themselves.
import type { Box, Drawing } from '../drawing.ts';
import { roughBounds } from '../outline/corners.ts';
import { movedShape } from '../outline/cover.ts';
import { translation } from '../path/matrix.ts';

/** A drawing is moved whose middle is this many times its size away from the origin, and at least so many units. */
const FAR = 100;
const FAR_UNITS = 1e5;

/** @param isUpward the file has y up, which is how the way it was moved is told */
export function recentred(drawing: Drawing, isUpward = false): Drawing {
  const bounds = roughBounds(drawing.shapes.map(({ path }) => path));
  if (!bounds) return drawing;
  const { minX, minY, maxX, maxY } = bounds;
  const box: Box = { x: minX, y: minY, width: maxX - minX, height: maxY - minY };
  const [cx, cy] = [box.x + box.width / 2, box.y + box.height / 2];
  const size = Math.max(box.width, box.height);
  if (!(Math.hypot(cx, cy) > Math.max(FAR_UNITS, FAR * size)) || size === 0) return drawing;
  const [dx, dy] = [Math.round(cx), Math.round(cy)];
  const message = `The drawing lies ${Math.round(Math.hypot(cx, cy))} units from the origin; it was moved there by ${-dx}, ${isUpward ? dy : -dy}.`;
  // A sheet that nothing of the drawing lies on says nothing about it.
  const { sheet } = drawing;
  const kept =
    cx >= sheet.x && cx <= sheet.x + sheet.width && cy >= sheet.y && cy <= sheet.y + sheet.height ? sheet : box;
  return {
    ...drawing,
    shapes: drawing.shapes.map((shape) => movedShape(shape, translation(-dx, -dy))),
    sheet: { ...kept, x: kept.x - dx, y: kept.y - dy },
    warnings: [...drawing.warnings, { code: 'recentred', message }],
  };
}
