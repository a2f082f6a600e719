// recentre.ts — drawings that lie far from the origin, as surveys do, are moved to it: coordinates of ten million leave no
// digits for the shapes themselves.
import type { Drawing } from '../drawing.ts';
import { movedShape } from '../outline/cover.ts';
import { translation } from '../path/matrix.ts';

/** A drawing whose middle is this many times its size away from the origin is moved. */
const FAR = 100;

export function recentred(drawing: Drawing): Drawing {
  const { x, y, width, height } = drawing.sheet;
  const [cx, cy] = [x + width / 2, y + height / 2];
  const size = Math.max(width, height);
  if (!(Math.hypot(cx, cy) > FAR * size) || size === 0) return drawing;
  const [dx, dy] = [Math.round(cx), Math.round(cy)];
  const message = `The drawing lies ${Math.round(Math.hypot(cx, cy))} units from the origin; it was moved there by ${-dx}, ${dy}.`;
  return {
    ...drawing,
    shapes: drawing.shapes.map((shape) => movedShape(shape, translation(-dx, -dy))),
    sheet: { ...drawing.sheet, x: x - dx, y: y - dy },
    warnings: [...drawing.warnings, { code: 'recentred', message }],
  };
}
