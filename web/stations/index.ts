// index.ts — all stations, in the order of the route. A new one is a folder here and a line below.
import { build } from './build/build.ts';
import { exporting } from './export/export.ts';
import type { Station } from './kind.ts';
import { outline } from './outline/outline.tsx';
import { proof } from './proof/proof.ts';
import { source } from './source/source.tsx';

export const STATIONS: readonly Station[] = [source, outline, build, exporting, proof];
