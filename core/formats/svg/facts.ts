// facts.ts — what an SVG is known by, and what it keeps.
import type { OutlineFacts } from '../format.ts';

export const SVG_LIMITS = { bytes: 24 * 2 ** 20, segments: 1_000_000, coordinate: 1e9, instances: 100_000 } as const;

export const svgFacts = {
  id: 'svg',
  name: 'SVG',
  about: 'flat: curves, colours, layers as groups',
  of: 'outlines',
  extension: 'svg',
  mime: 'image/svg+xml',
  keeps: ['colours', 'strokes'],
  limit: SVG_LIMITS.bytes,
  // As if every byte were a letter: a head may end in the middle of one, and UTF-16 has a zero beside each.
  sniff: (head) => /<(svg:)?svg[\s/>]/.test(new TextDecoder('latin1').decode(head).replaceAll('\0', '')),
} as const satisfies OutlineFacts;
