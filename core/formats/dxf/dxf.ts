// dxf.ts — ASCII DXF: line work on layers, with units.
import type { OutlineFormat } from '../format.ts';
import { dxfFacts } from './facts.ts';
import { readDxf } from './read.ts';
import { writeDxf } from './write.ts';

export const dxf = {
  ...dxfFacts,
  // ASCII, with UTF-8 in newer releases.
  decode: (bytes) => new TextDecoder().decode(bytes),
  read: readDxf,
  write: writeDxf,
} as const satisfies OutlineFormat;
