// arc.ts — elliptical arcs as cubics. SVG 2, Appendix B.2 "Elliptical arc implementation notes":
// B.2.4 endpoint to centre form, B.2.5 correction of out-of-range radii.
import type { Segment } from './types.ts';

type Cubic = Extract<Segment, readonly ['C', ...unknown[]]>;

/** Largest sweep of one cubic. At π/4 the radial error is below 4.3e-6 of the radius (2.7e-4 at π/2). */
const MAX_SWEEP = Math.PI / 4;

export interface EndpointArc {
  readonly rx: number;
  readonly ry: number;
  /** Rotation of the ellipse's x axis, in degrees as path data gives it. */
  readonly rotationDeg: number;
  readonly largeArc: boolean;
  readonly sweep: boolean;
}

/** Cubics from (x0, y0) to (x1, y1); a straight one when a radius is 0; none when the ends coincide. */
export function arcToCubics(x0: number, y0: number, arc: EndpointArc, x1: number, y1: number): Cubic[] {
  if (x0 === x1 && y0 === y1) return [];
  let rx = Math.abs(arc.rx);
  let ry = Math.abs(arc.ry);
  if (rx === 0 || ry === 0) return [['C', x0, y0, x1, y1, x1, y1]];
  const phi = (arc.rotationDeg * Math.PI) / 180;
  const cos = Math.cos(phi);
  const sin = Math.sin(phi);
  const hx = (x0 - x1) / 2;
  const hy = (y0 - y1) / 2;
  const px = cos * hx + sin * hy;
  const py = -sin * hx + cos * hy;
  const lambda = (px / rx) ** 2 + (py / ry) ** 2;
  if (lambda > 1) {
    rx *= Math.sqrt(lambda);
    ry *= Math.sqrt(lambda);
  }
  const numerator = rx * rx * ry * ry - rx * rx * py * py - ry * ry * px * px;
  const denominator = rx * rx * py * py + ry * ry * px * px;
  const root = Math.sqrt(Math.max(0, numerator / denominator)) * (arc.largeArc === arc.sweep ? -1 : 1);
  const cpx = (root * rx * py) / ry;
  const cpy = (-root * ry * px) / rx;
  const cx = cos * cpx - sin * cpy + (x0 + x1) / 2;
  const cy = sin * cpx + cos * cpy + (y0 + y1) / 2;
  const start = Math.atan2((py - cpy) / ry, (px - cpx) / rx);
  let delta = Math.atan2((-py - cpy) / ry, (-px - cpx) / rx) - start;
  if (arc.sweep && delta < 0) delta += 2 * Math.PI;
  if (!arc.sweep && delta > 0) delta -= 2 * Math.PI;
  const cubics = ellipseCubics({ cx, cy, rx, ry, cos, sin }, start, delta);
  const last = cubics.pop();
  // The end point is given, not computed, so that joined pieces meet exactly.
  if (last) cubics.push(['C', last[1], last[2], last[3], last[4], x1, y1]);
  return cubics;
}

/** A whole ellipse as a closed path, starting at its rightmost point and sweeping from +x to +y. */
export function ellipsePath(cx: number, cy: number, rx: number, ry: number): Segment[] {
  const cubics = ellipseCubics({ cx, cy, rx, ry, cos: 1, sin: 0 }, 0, 2 * Math.PI);
  // It ends exactly where it begins.
  const [, x1, y1, x2, y2] = cubics.pop()!;
  return [['M', cx + rx, cy], ...cubics, ['C', x1, y1, x2, y2, cx + rx, cy], ['Z']];
}

interface Ellipse {
  readonly cx: number;
  readonly cy: number;
  readonly rx: number;
  readonly ry: number;
  readonly cos: number;
  readonly sin: number;
}

function ellipseCubics({ cx, cy, rx, ry, cos, sin }: Ellipse, start: number, delta: number): Cubic[] {
  const pieces = Math.max(1, Math.ceil(Math.abs(delta) / MAX_SWEEP - 1e-9));
  const step = delta / pieces;
  const k = (4 / 3) * Math.tan(step / 4);
  const point = (u: number, v: number): [number, number] => [
    cx + cos * rx * u - sin * ry * v,
    cy + sin * rx * u + cos * ry * v,
  ];
  const cubics: Cubic[] = [];
  for (let i = 0; i < pieces; i++) {
    const t0 = start + i * step;
    const t1 = t0 + step;
    const [c0, s0, c1, s1] = [Math.cos(t0), Math.sin(t0), Math.cos(t1), Math.sin(t1)];
    cubics.push(['C', ...point(c0 - k * s0, s0 + k * c0), ...point(c1 + k * s1, s1 - k * c1), ...point(c1, s1)]);
  }
  return cubics;
}
