// transform.ts — the `transform` attribute (CSS Transforms 1 §5, SVG syntax) and `viewBox` placement (SVG 2 §8.2).
import { numbersAt } from '../../base/arrays.ts';
import type { Box } from '../../drawing.ts';
import { multiply, rotation, scaling, translation } from '../../path/matrix.ts';
import { IDENTITY, type Matrix } from '../../path/types.ts';

const FUNCTION = /([a-z]+)\s*\(([^)]*)\)/gi;
const NUMBER = /[+-]?(?:\d+\.?\d*|\.\d+)(?:e[+-]?\d+)?/gi;
const DEGREE = Math.PI / 180;

/** Numbers of a list in any of SVG's spellings (`1-2`, `1,2`, `.5.5`). */
export function numbersOf(text: string): number[] {
  return (text.match(NUMBER) ?? []).map(Number);
}

/** The map of a transform list, or null when it is malformed (which SVG treats as no transform). */
export function parseTransform(text: string): Matrix | null {
  let result: Matrix = IDENTITY;
  for (const [, name, body] of text.matchAll(FUNCTION)) {
    const next = transformFunction(name!, numbersOf(body!), /deg|rad|turn|grad/.exec(body!)?.[0]);
    if (!next) return null;
    result = multiply(result, next);
  }
  return text.replace(FUNCTION, '').replace(/[\s,]/g, '') === '' ? result : null;
}

function transformFunction(name: string, v: readonly number[], angleUnit = 'deg'): Matrix | null {
  const perUnit = { deg: DEGREE, rad: 1, turn: 2 * Math.PI, grad: Math.PI / 200 }[angleUnit]!;
  const [p = 0, q, r = 0] = v;
  if (v.length === 0) return null;
  switch (name) {
    case 'matrix':
      return v.length === 6 ? numbersAt(v, 0, 6) : null;
    case 'translate':
      return translation(p, q ?? 0);
    case 'translateX':
      return translation(p, 0);
    case 'translateY':
      return translation(0, p);
    case 'scale':
      return scaling(p, q ?? p);
    case 'scaleX':
      return scaling(p, 1);
    case 'scaleY':
      return scaling(1, p);
    case 'rotate': {
      const turn = rotation(p * perUnit);
      return q === undefined ? turn : multiply(multiply(translation(q, r), turn), translation(-q, -r));
    }
    case 'skewX':
      return [1, 0, Math.tan(p * perUnit), 1, 0, 0];
    case 'skewY':
      return [1, Math.tan(p * perUnit), 0, 1, 0, 0];
    default:
      return null;
  }
}

/** A `viewBox` with positive size, or null. */
export function parseViewBox(text: string | undefined): Box | null {
  const [x, y, width, height, ...rest] = numbersOf(text ?? '');
  if (rest.length > 0 || height === undefined || !(width! > 0) || !(height > 0)) return null;
  return { x: x!, y: y!, width: width!, height };
}

/** Maps `viewBox` into `viewport` as `preserveAspectRatio` asks (default xMidYMid meet). */
export function fitViewBox(viewBox: Box, viewport: Box, preserveAspectRatio = 'xMidYMid meet'): Matrix {
  let sx = viewport.width / viewBox.width;
  let sy = viewport.height / viewBox.height;
  const [, alignX = 'Mid', alignY = 'Mid'] = /x(Min|Mid|Max)Y(Min|Mid|Max)/.exec(preserveAspectRatio) ?? [];
  if (!/\bnone\b/.test(preserveAspectRatio)) {
    sx = /\bslice\b/.test(preserveAspectRatio) ? Math.max(sx, sy) : Math.min(sx, sy);
    sy = sx;
  }
  const share = (align: string) => ({ Min: 0, Mid: 0.5, Max: 1 })[align]!;
  const spareX = viewport.width - sx * viewBox.width;
  const spareY = viewport.height - sy * viewBox.height;
  const tx = viewport.x + spareX * share(alignX) - sx * viewBox.x;
  const ty = viewport.y + spareY * share(alignY) - sy * viewBox.y;
  return [sx, 0, 0, sy, tx, ty];
}
