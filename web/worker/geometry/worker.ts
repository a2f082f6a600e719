// worker.ts — the module of the geometry worker: evaluates projects away from the interface thread, and keeps what it made.
import * as Comlink from 'comlink';
import { letProjectsCross } from '../crossing.ts';
import { arriving } from './arriving.ts';
import { building } from './building.ts';
import { marking } from './marking.ts';
import { outlines } from './outlines.ts';
import { pictures } from './pictures.ts';
import { pool, watchSign } from './state.ts';

letProjectsCross();

const api = {
  ...arriving,
  ...outlines,
  ...pictures,
  ...building,
  ...marking,
  /** Takes the sign that the page raises to stop something. */
  watch: (buffer: SharedArrayBuffer) => watchSign(buffer),
  /** Ends what the pool is doing. */
  stop: () => pool.stop(),
};
export type GeometryApi = typeof api;
Comlink.expose(api);
