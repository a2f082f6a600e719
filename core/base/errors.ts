// errors.ts — the one error type of the core: a code for programs, a sentence for people.

export type ErrorCode =
  | 'not-finite'
  | 'out-of-range'
  | 'bad-file'
  | 'too-large'
  | 'nothing-to-build'
  | 'crossing-constraints'
  | 'unknown-id'
  | 'locked'
  | 'not-closed'
  | 'cannot-join'
  | 'cancelled';

/** An expected failure. `message` says what was wrong, where, and what to do; `code` never changes wording. */
export class GeometryError extends Error {
  readonly code: ErrorCode;
  constructor(code: ErrorCode, message: string) {
    super(message);
    this.name = 'GeometryError';
    this.code = code;
  }
}

/** Something that was done differently from what the input asked for; shown beside the result. */
export interface Warning {
  readonly code: string;
  readonly message: string;
}
