// drawings.ts — made-up shapes for tests.
import { type Drawing, roundStroke, type Shape } from '../drawing.ts';
import { parsePath } from '../path/parse.ts';

export const filledShape = (id: string, d: string, colour = '#204060'): Shape => ({
  id,
  name: id,
  group: '',
  path: parsePath(d).path,
  fillRule: 'nonzero',
  colour,
  opacity: 1,
});

export const strokedShape = (id: string, d: string, width: number, colour = '#204060'): Shape => ({
  ...filledShape(id, d, colour),
  stroke: roundStroke(width),
});

export const drawingOf = (...shapes: Shape[]): Drawing => ({
  shapes,
  sheet: { x: 0, y: 0, width: 100, height: 100 },
  mmPerUnit: null,
  leftOut: [],
  warnings: [],
});
