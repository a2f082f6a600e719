// client.ts — the page's end of the one geometry worker. A worker that dies would leave its callers waiting for ever, so a
// crash fails what is open and a new worker takes its place.
import * as Comlink from 'comlink';
import { forgetProjects, letProjectsCross } from './crossing.ts';
import type { GeometryApi } from './geometry/worker.ts';
import type { Outcome } from './outcome.ts';
import { newStopSign, raise } from './stopping.ts';

interface Running {
  readonly api: Comlink.Remote<GeometryApi>;
  readonly sign: ReturnType<typeof newStopSign>;
  readonly crashed: Promise<Error>;
  readonly end: (reason: string) => void;
}

letProjectsCross();
let running: Running | null = null;
/** Calls that are not answered yet. */
const open = new Set<Promise<unknown>>();

function start(): Running {
  forgetProjects();
  const worker = new Worker(new URL('./geometry/worker.ts', import.meta.url), { type: 'module', name: 'geometry' });
  let fail: (error: Error) => void = () => {};
  const crashed = new Promise<Error>((resolve) => {
    fail = resolve;
  });
  const end = (reason: string) => {
    worker.terminate();
    running = null;
    fail(new Error(reason));
  };
  worker.addEventListener('error', (event) => end(event.message || 'The geometry worker stopped.'));
  const api = Comlink.wrap<GeometryApi>(worker);
  const sign = newStopSign();
  if (sign) void api.watch(sign.buffer);
  return { api, sign, crashed, end };
}

/** Starts the worker while the page is still being put together: it takes its time. */
export function startGeometry(): void {
  running ??= start();
}

/** Calls the worker; a crash and a stop are failures like any other. */
export async function geometry<T>(
  call: (api: Comlink.Remote<GeometryApi>) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  running ??= start();
  const { api, crashed } = running;
  const ended = crashed.then(
    (error): Outcome<T> => ({ ok: false, error: { code: 'cancelled', message: error.message } }),
  );
  const answer = Promise.race([call(api), ended]);
  open.add(answer);
  return answer.finally(() => open.delete(answer));
}

/** How long a worker that was asked to stop may take. */
const PATIENCE_MS = 2000;

/**
 * Stops whatever the worker is doing; what it knows stays. One that does not heed it in time, because it is in a step that nothing
 * interrupts, is ended, and computes again what is asked for.
 */
export function stopGeometry(): void {
  const stopped = running;
  if (!stopped) return;
  raise(stopped.sign);
  void stopped.api.stop();
  const calls = [...open];
  const late = setTimeout(() => {
    if (running === stopped) stopped.end('Stopped.');
  }, PATIENCE_MS);
  void Promise.allSettled(calls).then(() => clearTimeout(late));
}
