// errors.ts — the one place where errors become HTTP replies.
import type { ErrorRequestHandler } from 'express';
import { ZodError } from 'zod';
import { type ErrorReply, GeometryError, type ProjectReply } from '../core/index.ts';

export class NotFound extends Error {}

/** Asked by someone who may not ask. */
export class Refused extends Error {}

/** Someone else saved first; carries what they saved. */
export class Conflict extends Error {
  readonly current: ProjectReply;
  constructor(current: ProjectReply) {
    super('The project was changed elsewhere since it was opened here.');
    this.current = current;
  }
}

/** An error that body parsers of Express throw. */
interface HttpError extends Error {
  readonly status: number;
  readonly type: string;
}

/** To the log, without the bytes and documents that a failed query carries in its message. */
export function logError(error: unknown): void {
  const text = (value: unknown) =>
    value instanceof Error ? `${value.name}: ${value.message.slice(0, 300)}` : String(value);
  const cause = error instanceof Error && error.cause ? ` (${text(error.cause)})` : '';
  console.error(`${new Date().toISOString()} ${text(error)}${cause}`);
}

export const errorReplies: ErrorRequestHandler = (error: unknown, _request, response, _next) => {
  const reply = (status: number, body: ErrorReply['error'], more: object = {}) => {
    response.status(status).json({ error: body, ...more });
  };
  if (error instanceof ZodError) {
    const fields = error.issues.map((issue) => ({ path: issue.path.join('.'), message: issue.message }));
    return reply(400, { code: 'bad-request', message: 'The request has fields that do not fit.', fields });
  }
  if (error instanceof NotFound) return reply(404, { code: 'not-found', message: error.message });
  if (error instanceof Refused) return reply(403, { code: 'refused', message: error.message });
  if (error instanceof Conflict) {
    return reply(409, { code: 'conflict', message: error.message }, { current: error.current });
  }
  if (error instanceof GeometryError) {
    return reply(error.code === 'too-large' ? 413 : 422, { code: error.code, message: error.message });
  }
  const { status, type } = error as Partial<HttpError>;
  if (type === 'entity.parse.failed') {
    const fields = [{ path: '', message: (error as Error).message }];
    return reply(400, { code: 'bad-json', message: 'The request is not valid JSON.', fields });
  }
  if (type === 'entity.too.large')
    return reply(413, { code: 'too-large', message: 'The request is larger than this server takes.' });
  if (status !== undefined && status < 500)
    return reply(status, { code: 'bad-request', message: (error as Error).message });
  logError(error);
  return reply(500, { code: 'unexpected', message: 'Something went wrong on the server; nothing was changed.' });
};
