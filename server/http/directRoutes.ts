import type { Request, Response } from 'express';
import type { IncomingMessage, ServerResponse } from 'node:http';
import type { HasScheduler } from '../machine/loopScheduler';
import { sendJson, type Endpoint } from './endpoint';
import { ApiError, badRequest, refusalOf, type Refusing } from './errors';
import { apiHeaders, isForeign } from './security';
import type { HasSessions } from './sessions';

type Listener = (request: IncomingMessage, response: ServerResponse) => boolean;

const PREFIX = '/api';

/** What is read here: plain JSON of a known length. Everything else takes the usual way. */
function isPlain({ headers }: IncomingMessage, limitKb: number): boolean {
  const length = Number(headers['content-length'] ?? NaN);
  return (
    headers['content-type']?.startsWith('application/json') === true &&
    headers['content-encoding'] === undefined &&
    !/charset=(?!utf-?8)/i.test(headers['content-type']) &&
    length <= limitKb * 1024
  );
}

function bodyOf(request: IncomingMessage): Promise<unknown> {
  return new Promise((resolve, reject) => {
    const pieces: Buffer[] = [];
    request.on('data', (piece: Buffer) => pieces.push(piece));
    // The device has gone away meanwhile: that is no fault of ours.
    request.on('error', () => reject(badRequest('malformed')));
    request.on('end', () => {
      const text = (pieces.length === 1 ? pieces[0]! : Buffer.concat(pieces)).toString('utf8');
      try {
        resolve(text === '' ? {} : JSON.parse(text));
      } catch {
        reject(badRequest('malformed'));
      }
    });
  });
}

/**
 * The routes of running sittings, without the router and the parsers that every other request goes through: they are half of
 * the work of a save, and each desk saves every ten seconds. What is done is the same, in the same order: headers, origin,
 * who asks, the body, its schema. Gives a listener that says whether it has taken a request.
 */
export function directRoutes(
  needs: HasSessions & HasScheduler & Refusing,
  endpoints: readonly Endpoint[],
  secure: boolean,
): Listener {
  const headers = Object.entries(apiHeaders(secure));
  const routes = new Map(
    endpoints
      .filter(({ first, method, path }) => first && method === 'post' && !path.includes(':'))
      .map((endpoint) => [`${PREFIX}${endpoint.path}`, endpoint]),
  );
  const answer = async (endpoint: Endpoint, request: IncomingMessage, response: ServerResponse) => {
    // The handlers of these routes use of a request its headers and its body alone.
    const asked = request as Request;
    try {
      if (isForeign(request.headers)) throw new ApiError(403, 'foreign-origin');
      const who = await endpoint.admit(needs.sessions, asked);
      asked.body = await bodyOf(request);
      const work = () => endpoint.run(who as never, asked, response as Response);
      sendJson(response, await needs.scheduler.save(work));
    } catch (error) {
      const { status, body } = refusalOf(error, needs);
      if (response.headersSent) return response.destroy();
      response.statusCode = status;
      sendJson(response, body);
    }
  };
  return (request, response) => {
    const endpoint = request.method === 'POST' ? routes.get(request.url ?? '') : undefined;
    if (!endpoint || !isPlain(request, endpoint.limitKb)) return false;
    for (const [name, value] of headers) response.setHeader(name, value);
    void answer(endpoint, request, response);
    return true;
  };
}
