// client.ts — the one geometry worker of the page. A worker that dies would leave its callers waiting for ever, so a
// crash fails what is open and a new worker takes its place.
import * as Comlink from 'comlink';
import type { GeometryApi } from './geometry.worker.ts';
import type { Outcome } from './outcome.ts';

interface Running {
  readonly api: Comlink.Remote<GeometryApi>;
  readonly crashed: Promise<Error>;
  readonly stop: (reason: string) => void;
}

let running: Running | null = null;

function start(): Running {
  const worker = new Worker(new URL('./geometry.worker.ts', import.meta.url), { type: 'module', name: 'geometry' });
  let fail: (error: Error) => void = () => {};
  const crashed = new Promise<Error>((resolve) => {
    fail = resolve;
  });
  const stop = (reason: string) => {
    worker.terminate();
    running = null;
    fail(new Error(reason));
  };
  worker.addEventListener('error', (event) => stop(event.message || 'The geometry worker stopped.'));
  return { api: Comlink.wrap<GeometryApi>(worker), crashed, stop };
}

/** Calls the worker; a crash and a cancel are failures like any other. */
export async function geometry<T>(
  call: (api: Comlink.Remote<GeometryApi>) => Promise<Outcome<T>>,
): Promise<Outcome<T>> {
  running ??= start();
  const { api, crashed } = running;
  const stopped = crashed.then(
    (error): Outcome<T> => ({ ok: false, error: { code: 'cancelled', message: error.message } }),
  );
  return Promise.race([call(api), stopped]);
}

/** Ends whatever the worker is doing. What it had cached is computed again when asked for. */
export function cancelGeometry(): void {
  running?.stop('Stopped.');
}
