// svg.ts — SVG 2: curves, colours, layers as groups. https://www.w3.org/TR/SVG2/
import type { OutlineFormat } from '../format.ts';
import { recentred } from '../recentre.ts';
import { svgFacts } from './facts.ts';
import { readSvg } from './read.ts';
import { decodeXml } from './text.ts';
import { writeSvg } from './write.ts';

export const svg = {
  ...svgFacts,
  decode: decodeXml,
  read: (text) => recentred(readSvg(text)),
  write: (document) => writeSvg(document),
} as const satisfies OutlineFormat;
