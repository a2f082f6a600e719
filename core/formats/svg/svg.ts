// svg.ts — SVG 2: curves, colours, layers as groups. https://www.w3.org/TR/SVG2/
import type { OutlineFormat } from '../format.ts';
import { recentred } from '../recentre.ts';
import { readSvg, SVG_LIMITS } from './read.ts';
import { decodeXml } from './text.ts';
import { writeSvg } from './write.ts';

export const svg = {
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
  decode: decodeXml,
  read: (text) => recentred(readSvg(text)),
  write: (document) => writeSvg(document),
} as const satisfies OutlineFormat;
