import type { RequestHandler } from 'express';
import type { IncomingHttpHeaders } from 'node:http';
import helmet from 'helmet';
import { ApiError } from './errors';

const SELF = ["'self'"];
/** How long browsers that came by https stay with it. */
const HTTPS_S = 31_536_000;

/** Scripts only from here; inline styles are needed by the editors; nothing may frame us. */
export const securityHeaders = (secure: boolean) =>
  helmet({
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: SELF,
        scriptSrc: SELF,
        styleSrc: [...SELF, "'unsafe-inline'"],
        imgSrc: [...SELF, 'blob:', 'data:'],
        mediaSrc: [...SELF, 'blob:', 'data:'],
        workerSrc: SELF,
        connectSrc: SELF,
        fontSrc: SELF,
        objectSrc: ["'none'"],
        baseUri: ["'none'"],
        formAction: SELF,
        frameAncestors: ["'none'"],
      },
    },
    referrerPolicy: { policy: 'no-referrer' },
    strictTransportSecurity: secure && { maxAge: HTTPS_S, includeSubDomains: false },
  });

/** The API answers with data only: nothing in it may run or be framed. Set as one, for it is asked many times a second. */
export function dataHeaders(secure: boolean): RequestHandler {
  const headers = apiHeaders(secure);
  return (_request, response, next) => {
    response.set(headers);
    next();
  };
}

export const apiHeaders = (secure: boolean): Readonly<Record<string, string>> => ({
  'Cache-Control': 'no-store',
  'Content-Security-Policy': "default-src 'none'; frame-ancestors 'none'",
  'Cross-Origin-Resource-Policy': 'same-origin',
  'Referrer-Policy': 'no-referrer',
  'X-Content-Type-Options': 'nosniff',
  ...(secure && { 'Strict-Transport-Security': `max-age=${HTTPS_S}` }),
});

/** A worker script answers with a policy of its own: it alone may compile WebAssembly. */
export const workerPolicy =
  "default-src 'self'; script-src 'self' 'wasm-unsafe-eval'; connect-src 'self'; object-src 'none'; base-uri 'none'";

export const permissionsPolicy: RequestHandler = (_request, response, next) => {
  response.set('Permissions-Policy', 'camera=(self), microphone=(self), geolocation=(), payment=()');
  next();
};

/** Whether a request comes from another site's page. “null”, as from a page without an origin, and no address at all are nobody's. */
export const isForeign = ({ origin, host }: IncomingHttpHeaders): boolean =>
  Boolean(origin) && !(URL.canParse(origin!) && new URL(origin!).host === host);

/** Besides same-site cookies: a change asked for by another site's page is refused. */
export const ownOriginOnly: RequestHandler = (request, _response, next) => {
  if (request.method !== 'GET' && isForeign(request.headers)) throw new ApiError(403, 'foreign-origin');
  next();
};
