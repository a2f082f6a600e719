// stroke.ts — a stroke's style as attributes of an SVG element.
import type { Stroke } from '../../core/index.ts';

export function strokeAttributes({ width, join, cap, mitreLimit, dashes, dashOffset }: Stroke) {
  return {
    strokeWidth: width,
    strokeLinejoin: join === 'mitre' ? 'miter' : join,
    strokeLinecap: cap,
    strokeMiterlimit: mitreLimit,
    strokeDasharray: dashes.length > 0 ? dashes.join(' ') : undefined,
    strokeDashoffset: dashOffset,
  } as const;
}
