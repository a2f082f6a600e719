// outcome.ts — how results travel between threads: errors as data, because a thrown error loses its code on the way.
import { type Failure, GeometryError } from '../../core/index.ts';

export type { Failure };
export type Outcome<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: Failure };

export async function attempt<T>(act: () => T | Promise<T>): Promise<Outcome<T>> {
  try {
    return { ok: true, value: await act() };
  } catch (error) {
    const code = error instanceof GeometryError ? error.code : 'unexpected';
    return { ok: false, error: { code, message: error instanceof Error ? error.message : String(error) } };
  }
}
