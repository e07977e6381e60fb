import type { ErrorRequestHandler } from 'express';
import type { Logger } from 'pino';

/** The errors that the server has names for. Their message is a sentence for a person: what happened, what to do. */
export class ApiError extends Error {
  readonly status: number;
  readonly code: string;
  readonly details: unknown;
  constructor(status: number, code: string, message: string, details?: unknown) {
    super(message);
    this.status = status;
    this.code = code;
    this.details = details;
  }
}

export const badRequest = (message: string, details?: unknown) =>
  new ApiError(400, 'malformed', message, details);
export const notSignedIn = () =>
  new ApiError(401, 'not-signed-in', 'You are not signed in. Sign in and try again.');
export const linkNeeded = () =>
  new ApiError(
    401,
    'link-needed',
    'Open your personal link again: this browser no longer knows who you are.',
  );
export const notAllowed = () => new ApiError(403, 'not-allowed', 'Your account is not set up for this.');
export const notFound = (what: string) => new ApiError(404, 'not-found', `${what} could not be found.`);
export const conflict = (code: string, message: string) => new ApiError(409, code, message);
export const paperUnreadable = (details: string) =>
  new ApiError(
    409,
    'paper-unreadable',
    'This paper cannot be opened: a question in it is of a kind or version that this program does not know. The people who run the test have to update the program or the paper.',
    details,
  );
export const unreadable = (message: string, details?: unknown) =>
  new ApiError(422, 'unreadable', message, details);
export const storageFull = () =>
  new ApiError(
    507,
    'storage-full',
    'The server has no room left. Your answers stay on your device and are sent again.',
  );

const isFull = (error: unknown) =>
  (error as { code?: string }).code?.startsWith('SQLITE_FULL') ||
  (error as { code?: string }).code === 'ENOSPC';

/** What Express and its parsers throw before a route is reached. */
function fromParser(error: { type?: string; status?: number }): ApiError | null {
  if (error.type === 'entity.too.large')
    return new ApiError(413, 'too-large', 'This is more than can be sent at once.');
  if (
    error.type?.startsWith('entity.') ||
    error.type?.startsWith('encoding.') ||
    error.type === 'charset.unsupported'
  )
    return badRequest('This message cannot be read.');
  return error.status === 400 ? badRequest('This address cannot be read.') : null;
}

export function errorHandler(log: Logger): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    if (response.headersSent) return next(error);
    const known =
      error instanceof ApiError ? error : isFull(error) ? storageFull() : fromParser(error as object);
    if (!known) log.error({ err: error }, 'unexpected error');
    const shown =
      known ??
      new ApiError(500, 'broken', 'Something broke on our side. Nothing you sent before is lost; try again.');
    response.status(shown.status).json({ code: shown.code, message: shown.message, details: shown.details });
  };
}
