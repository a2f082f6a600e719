// shape.ts — what every view of a shape holds.
import type { Stroke } from '../drawing.ts';

export interface ShapeView {
  readonly id: string;
  readonly name: string;
  /** SVG path data. */
  readonly d: string;
  readonly fillRule: 'nonzero' | 'evenodd';
  /** In the same units as the path; null for a filled shape. */
  readonly stroke: Stroke | null;
  /** `#rrggbb` of the source. */
  readonly colour: string;
}
