import type { ErrorRequestHandler } from 'express';
import { troubleOf } from '../machine/troubles';
import type { Logger } from 'pino';
import type { Troubles } from '../machine/troubles';
import { message, type Message } from '../../core/messages/message';

export interface Said {
  /** In the catalogue of errors; without it the code's own. */
  readonly key?: string;
  readonly values?: Message['values'];
  /** Why, where there can be several reasons at once. */
  readonly reasons?: readonly Message[];
  /** For whoever wrote the request, not for people. */
  readonly details?: unknown;
}

const camel = (code: string) => code.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());

/** The errors that the server has names for. What they say to a person is in `core/messages/errors.en.ts`. */
export class ApiError extends Error {
  readonly status: number;
  readonly code: string;
  readonly said: Said;
  readonly body: Readonly<Record<string, unknown>> & { readonly message: Message };

  constructor(status: number, code: string, said: Said = {}) {
    super(code);
    const { key = camel(code), values, reasons, details } = said;
    this.said = said;
    this.status = status;
    this.code = code;
    this.body = { code, message: message(`error.${key}`, values), reasons, details };
  }
}

export const badRequest = (key: string, details?: unknown) =>
  new ApiError(400, 'malformed', { key, details });
export const notSignedIn = () => new ApiError(401, 'not-signed-in');
export const linkNeeded = () => new ApiError(401, 'link-needed');
export const notAllowed = () => new ApiError(403, 'not-allowed');
export const notFound = (key: string) => new ApiError(404, 'not-found', { key });
export const conflict = (code: string, said?: Said) => new ApiError(409, code, said);
export const paperUnreadable = (details: string) => conflict('paper-unreadable', { details });
export const unreadable = (key: string, details?: unknown) =>
  new ApiError(422, 'unreadable', { key, details });
export const storageFull = () => new ApiError(507, 'storage-full');

/** What cannot be done now because of the machine; whoever sent it keeps it and tries again. */
function ofMachine(error: unknown): ApiError | null {
  const trouble = troubleOf(error);
  if (trouble === 'disk-full') return storageFull();
  return trouble === null ? null : new ApiError(503, trouble);
}

/** What Express and its parsers throw before a route is reached. */
function fromParser(error: { readonly type?: string; readonly status?: number }): ApiError | null {
  if (error.type === 'entity.too.large') return new ApiError(413, 'too-large');
  if (
    error.type?.startsWith('entity.') ||
    error.type?.startsWith('encoding.') ||
    error.type === 'charset.unsupported'
  )
    return badRequest('malformed');
  // Nested deeper than what checks it can follow.
  if (error instanceof RangeError && /call stack/.test(error.message)) return unreadable('tooDeep');
  return error.status === 400 ? badRequest('malformedAddress') : null;
}

export interface Refusing {
  readonly log: Logger;
  readonly troubles: Pick<Troubles, 'take'>;
}

/** What is said of an error, which is noted where it is not one of ours. */
export function refusalOf(error: unknown, { log, troubles }: Refusing): ApiError {
  troubles.take(error);
  const known = error instanceof ApiError ? error : (ofMachine(error) ?? fromParser(error as object));
  if (!known) log.error({ err: error }, 'unexpected error');
  return known ?? new ApiError(500, 'broken');
}

export function errorHandler(needs: Refusing): ErrorRequestHandler {
  return (error: unknown, _request, response, next) => {
    if (response.headersSent) return next(error);
    const shown = refusalOf(error, needs);
    response.status(shown.status).json(shown.body);
  };
}
