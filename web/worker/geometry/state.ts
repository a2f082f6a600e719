// state.ts — what the geometry worker has: the evaluator with its caches, the pool, and the bytes of sources as the server has them.
import * as Comlink from 'comlink';
import {
  BuildViews,
  bytesOf,
  drawingKey,
  type Edited,
  Evaluator,
  GeometryError,
  type LayerWishes,
  NotOpen,
  type Project,
  type Resolved,
  resolve,
  type Source,
} from '../../../core/index.ts';
import { Kept } from '../kept.ts';
import { type Member, Pool } from '../pool.ts';
import { type StopSign, stoppable } from '../stopping.ts';
import type { MemberApi } from './member.ts';
import { reader } from './reader.ts';

export const evaluator = new Evaluator();
export const views = new BuildViews(evaluator);

/** Of drawings and layers, in the browser's database. */
const KEPT_BYTES = 128 * 2 ** 20;

/** One processor is left to the page. */
const MOST_MEMBERS = Math.min(6, Math.max(1, (navigator.hardwareConcurrency || 2) - 1));

export const pool = new Pool<Comlink.Remote<MemberApi>>(startMember, MOST_MEMBERS);

function startMember(): Member<Comlink.Remote<MemberApi>> {
  const worker = new Worker(new URL('./member.ts', import.meta.url), { type: 'module', name: 'geometry member' });
  const crashed = new Promise<Error>((resolve) => {
    worker.addEventListener('error', (event) => {
      worker.terminate();
      resolve(new Error(event.message || 'A geometry worker stopped.'));
    });
  });
  return { api: Comlink.wrap<MemberApi>(worker), crashed, end: () => worker.terminate() };
}

/** One version of the application keeps nothing for another: the name of a built module says which it is. */
export const kept = new Kept(import.meta.env.DEV ? null : new URL(import.meta.url).pathname, KEPT_BYTES);

let sign: StopSign = null;

/** Takes the sign that the page raises to stop something. */
export function watchSign(buffer: SharedArrayBuffer): void {
  sign = new Int32Array(buffer);
}

export type Report = (share: number) => void;

/** A report that throws once something was stopped. */
export const heeding = (report: Report = () => {}): Report => stoppable(sign, report);

/**
 * Acts on a project all of whose sources are opened. What was opened long ago may be gone when it is asked for, and is fetched
 * again.
 */
export async function withSources<T>(project: Project, act: (project: Resolved) => T | Promise<T>): Promise<T> {
  const resolved = resolve(project);
  const fetched = new Set<Source>();
  await Promise.all(project.sources.map(open));
  for (;;) {
    try {
      return await act(resolved);
    } catch (error) {
      if (!(error instanceof NotOpen) || fetched.has(error.source)) throw error;
      fetched.add(error.source);
      await evaluator.openContent(error.source.kind, error.source, reader);
    }
  }
}

/** A drawing that an earlier visit kept needs no content. */
async function open(source: Source): Promise<void> {
  if (!evaluator.isDrawn(source)) {
    const drawn = await kept.get<Edited>(keptDrawing(source));
    if (drawn) evaluator.adoptDrawing(source, drawn);
  }
  await evaluator.open(source, reader);
}

const keptDrawing = (source: Source) => `drawing ${drawingKey(source)}`;

/** Keeps the drawing of a source for the next visit. */
export function keepDrawing(source: Source): void {
  const drawn = evaluator.edited(source);
  void kept.put(keptDrawing(source), bytesOf(drawn), drawn);
}

/** Acts on one source of a project. */
export function withSource<T>(
  project: Project,
  id: string,
  act: (source: Source, project: Resolved) => T | Promise<T>,
): Promise<T> {
  return withSources(project, (resolved) => {
    const source = project.sources.find((known) => known.id === id);
    if (!source) throw new GeometryError('unknown-id', `There is no source ${id} in this project.`);
    return act(source, resolved);
  });
}

/** A mark lands this large when it has no physical size: a hand's width. */
const START_SIZE = { mm: 100, cm: 10, m: 0.1, in: 4, ft: 0.25 } as const;

/** How layers are made for a project. */
export const wishesFor = ({ unit, tolerance, layers }: Project): LayerWishes => ({
  unit,
  tolerance,
  fallbackSize: START_SIZE[unit],
  newId: () => crypto.randomUUID(),
  takenNames: layers.map((layer) => layer.name),
});

/** Shapes that are not built. */
export function switchedOff(project: Project, source: Source): Set<string> {
  return new Set(
    project.layers.flatMap((layer) =>
      layer.source === source.id ? (layer.shown ? layer.skipped : layer.members) : [],
    ),
  );
}
