// dxf.ts — ASCII DXF: line work on layers, with units.
import type { OutlineFormat } from '../format.ts';
import { readDxf } from './read.ts';
import { DXF_LIMITS, isDxf } from './tags.ts';
import { writeDxf } from './write.ts';

export const dxf = {
  id: 'dxf',
  name: 'DXF',
  about: 'flat: line work on layers, with units',
  of: 'outlines',
  extension: 'dxf',
  mime: 'image/vnd.dxf',
  // Indexed colours come near, not back; a stroke is written as the line along its middle.
  keeps: [],
  // Cutters take no splines.
  hasCurveChoice: true,
  limit: DXF_LIMITS.bytes,
  sniff: (head) => isDxf(new TextDecoder('latin1').decode(head)),
  // ASCII, with UTF-8 in newer releases.
  decode: (bytes) => new TextDecoder().decode(bytes),
  read: readDxf,
  write: writeDxf,
} as const satisfies OutlineFormat;
