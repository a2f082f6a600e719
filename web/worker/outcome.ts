// outcome.ts — how results travel between threads: errors as data, because a thrown error loses its code on the way.
import { GeometryError } from '../../core/index.ts';

export interface Failure {
  readonly code: string;
  readonly message: string;
}
export type Outcome<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: Failure };

export function attempt<T>(act: () => T): Outcome<T> {
  try {
    return { ok: true, value: act() };
  } catch (error) {
    return failed(error);
  }
}

export async function attemptLater<T>(act: () => Promise<T>): Promise<Outcome<T>> {
  try {
    return { ok: true, value: await act() };
  } catch (error) {
    return failed(error);
  }
}

export function failed(error: unknown): { ok: false; error: Failure } {
  const code = error instanceof GeometryError ? error.code : 'unexpected';
  return { ok: false, error: { code, message: error instanceof Error ? error.message : String(error) } };
}
