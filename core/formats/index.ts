// index.ts — every file format, with all that it can do.
import { dxf } from './dxf/dxf.ts';
import type { FormatId, MeshFormatId, OutlineFormatId } from './facts.ts';
import type { Format, MeshFormat, OutlineFormat } from './format.ts';
import { glb } from './glb/glb.ts';
import { obj } from './obj/obj.ts';
import { stl } from './stl/stl.ts';
import { svg } from './svg/svg.ts';

const FORMATS: Readonly<Record<FormatId, Format>> = { glb, obj, stl, svg, dxf };

export const formatOf = (id: FormatId): Format => FORMATS[id];
export const meshFormat = (id: MeshFormatId) => FORMATS[id] as MeshFormat;
export const outlineFormat = (id: OutlineFormatId) => FORMATS[id] as OutlineFormat;
