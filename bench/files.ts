// files.ts — icons from their text to files, step by step as the command line does it, in units of the stock extrusion's time.
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { writeChunks } from '../cli/write.ts';
import { meshFormat } from '../core/formats/index.ts';
import { Evaluator, FORMATS, MESH_FORMATS, NO_EDGE, readSvg, type SourceReader } from '../core/index.ts';
import { projectOf, wishesOf } from '../core/testing/projects.ts';
import { median } from './median.ts';
import { ICON_FOLDER, iconNames, stock } from './solids.ts';

const REACH = 0.5;
const PASSES = 8;
const EDGE = { ...NO_EDGE, on: 'both', reach: REACH, rise: REACH } as const;

export async function compareFiles(): Promise<void> {
  const folder = mkdtempSync(join(tmpdir(), 'outline-stack-'));
  const texts = iconNames().map((name) => readFileSync(`${ICON_FOLDER}/${name}`));
  const times: Record<string, number[]> = {};
  for (let pass = 0; pass < PASSES; pass++) {
    // The last of several passes counts, when all runs as fast as it will.
    for (const name of Object.keys(times)) times[name] = [];
    for (const bytes of texts) {
      const add = (name: string, ms: number) => {
        times[name] ??= [];
        times[name].push(ms);
      };
      for (const [name, ms] of Object.entries(await steps(bytes, folder))) add(name, ms);
      add('stock', stock(readSvg(bytes.toString()), REACH).ms);
    }
  }
  rmSync(folder, { recursive: true, force: true });
  const unit = median(times.stock!);
  const share = (...names: string[]) => (names.reduce((sum, name) => sum + median(times[name]!), 0) / unit).toFixed(2);
  console.log(`Icons to files, reach ${REACH}, in units of the stock extrusion’s time (${unit.toFixed(2)} ms)\n`);
  console.log(
    `read + outline + mesh    ${share('read', 'outline', 'mesh')}  (${share('read')} + ${share('outline')} + ${share('mesh')})`,
  );
  for (const { id } of FORMATS) if (times[id]) console.log(`write ${id.padEnd(18)} ${share(id)}`);
}

/** Files written so far: every one is a new one, as on the command line. */
let files = 0;

/** Milliseconds of each step. */
async function steps(bytes: Uint8Array, folder: string): Promise<Record<string, number>> {
  const times: Record<string, number> = {};
  let last = performance.now();
  const lap = (name: string) => {
    const now = performance.now();
    times[name] = now - last;
    last = performance.now();
  };
  const reader = { bytes: async () => bytes } as Pick<SourceReader, 'bytes'> as SourceReader;
  const evaluator = new Evaluator();
  const file = { id: 'source', name: 'icon.svg', asset: 'e'.repeat(64), head: bytes };
  await evaluator.openFile(file, reader);
  lap('read');
  const wishes = wishesOf({ depth: 4, build: { edge: EDGE } });
  const { source, layers } = await evaluator.bringIn(file, reader, wishes);
  const project = { ...EMPTY, sources: [source], layers: [...layers] };
  for (const layer of project.layers) evaluator.outlines(project, layer);
  lap('outline');
  const parts = evaluator.parts(project);
  lap('mesh');
  for (const id of MESH_FORMATS) {
    const format = meshFormat(id);
    last = performance.now();
    for (const { extension, chunks } of format.write(parts, { name: 'icon', metresPerUnit: 1 })) {
      await writeChunks(join(folder, `${files++}.${extension}`), chunks);
    }
    lap(format.id);
  }
  return times;
}

const EMPTY = { ...projectOf(readSvg('<svg><rect width="1" height="1"/></svg>')).project, sources: [], layers: [] };
