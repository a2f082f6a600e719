// facts.ts — what a DXF is known by, and what it keeps.
import type { OutlineFacts } from '../format.ts';
import { DXF_LIMITS, isDxf } from './tags.ts';

export const dxfFacts = {
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
} as const satisfies OutlineFacts;
