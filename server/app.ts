import path from 'node:path';
import type { RequestListener, ServerResponse } from 'node:http';
import compression from 'compression';
import packedFiles from 'express-static-gzip';
import express, { type Express, type Response } from 'express';
import { accountEndpoints } from './accounts/routes';
import { firstAccountEndpoints } from './accounts/firstAccountRoutes';
import { experienceEndpoints } from './experience/routes';
import { paperEndpoints } from './papers/routes';
import { isSecure } from './config';
import { demoEndpoints } from './demo/routes';
import { ownTestEndpoints } from './ownTests/routes';
import { arrivalEndpoints } from './arrival/routes';
import { healthEndpoints } from './health/routes';
import { directRoutes } from './http/directRoutes';
import { mount, type Endpoint } from './http/endpoint';
import { errorHandler, notFound } from './http/errors';
import {
  dataHeaders,
  ownOriginOnly,
  permissionsPolicy,
  securityHeaders,
  workerPolicy,
} from './http/security';
import type { Outbox } from './mail/outbox';
import { jobEndpoints } from './jobs/routes';
import { letterEndpoints } from './mail/routes';
import { liveEndpoints } from './live/routes';
import { answerEndpoints } from './answers/routes';
import { correctionEndpoints } from './corrections/routes';
import { exportEndpoints } from './exports/routes';
import { mediaEndpoints } from './media/routes';
import { markingEndpoints } from './marking/routes';
import { rehearsalEndpoints } from './rehearsal/routes';
import { resultEndpoints } from './results/routes';
import { reviewEndpoints } from './review/routes';
import { roundEndpoints } from './rounds/routes';
import type { Services } from './wire';
import type { SittingOperations } from './sittings/operations';
import { sittingEndpoints } from './sittings/routes';
import { pageEndpoints } from './sittings/pageRoutes';
import { SittingPages } from './sittings/sittingPages';
import { Phones } from './phones/phones';
import { phoneEndpoints } from './phones/routes';
import { testEndpoints } from './testing/routes';
import { watchEndpoints } from './watch/routes';

const DOCS = path.resolve(import.meta.dirname, '..', 'docs');
const YEAR_SECONDS = 31_536_000;

/** Every route, those of candidates first: a request is held against one after the other. */
export function allEndpoints(services: Services, outbox: Outbox, sittings: SittingOperations): Endpoint[] {
  const pages = new SittingPages(services, sittings.closing);
  return [
    ...sittingEndpoints(sittings),
    ...liveEndpoints(services),
    ...arrivalEndpoints(services),
    ...ownTestEndpoints(services, outbox),
    ...pageEndpoints(services, pages),
    ...phoneEndpoints(new Phones(services, pages)),
    ...mediaEndpoints(services),
    ...rehearsalEndpoints(services, services.rehearsals),
    ...resultEndpoints(services, outbox),
    ...experienceEndpoints(services),
    ...healthEndpoints(services, outbox),
    ...watchEndpoints(services),
    ...markingEndpoints(services, outbox),
    ...accountEndpoints(services),
    ...firstAccountEndpoints(services),
    ...paperEndpoints(services),
    ...roundEndpoints(services, outbox, sittings.closing),
    ...letterEndpoints(services, outbox),
    ...jobEndpoints(services),
    ...answerEndpoints(services),
    ...correctionEndpoints(services),
    ...exportEndpoints(services),
    ...reviewEndpoints(services, outbox),
    ...demoEndpoints(services),
    ...testEndpoints(services),
  ];
}

function isReadable(address: string): boolean {
  try {
    decodeURIComponent(address);
    return true;
  } catch {
    return false;
  }
}

/** The files of the application, as the build has made and packed them. */
export function serveWeb(app: Express, folder: string): void {
  const sendPage = (response: Response) =>
    response.set('Cache-Control', 'no-cache').sendFile(path.join(folder, 'index.html'));
  // As a mail program may have cut a link: the page says in a sentence that it leads nowhere.
  app.use((request, response, next) => {
    if (isReadable(request.path)) next();
    else sendPage(response.status(400));
  });
  const headers = (response: ServerResponse, file: string) => {
    if (/worker/i.test(path.basename(file)) && /\.js(\.br)?$/.test(file))
      response.setHeader('Content-Security-Policy', workerPolicy);
    const hashed = file.includes(`${path.sep}assets${path.sep}`);
    response.setHeader('Cache-Control', hashed ? `public, max-age=${YEAR_SECONDS}, immutable` : 'no-cache');
  };
  // The build has packed what is worth it: Python alone would take a second of processor time for each candidate.
  const packed = { enableBrotli: true, orderPreference: ['br'], index: false };
  app.use(packedFiles(folder, { ...packed, serveStatic: { setHeaders: headers } }));
  // For whoever writes a paper of their own.
  for (const name of ['paper-example.json', 'coding-example.json', 'paper-schema.json'])
    app.get(`/${name}`, (_request, response) => response.sendFile(path.join(DOCS, name)));
  app.get('/{*page}', (_request, response) => sendPage(response));
}

/** The API: what every candidate's desk asks again and again comes first, and small answers are not packed. */
function buildApi(services: Services, endpoints: readonly Endpoint[]): express.Router {
  const api = express.Router();
  const pack = compression({ threshold: 2048 });
  api.use(dataHeaders(isSecure(services.config)), ownOriginOnly);
  api.use((request, response, next) => {
    // A stream of events must not be gathered for compression: each is to arrive at once.
    if (request.method !== 'GET' || request.path.endsWith('/stream')) next();
    else pack(request, response, next);
  });
  mount(api, services, endpoints);
  api.use(() => {
    throw notFound('noAddress');
  });
  return api;
}

/** The HTTP face of the server: the API under `/api`, everything else is the web application. */
function buildApp(services: Services, endpoints: readonly Endpoint[]): Express {
  const app = express();
  app.disable('x-powered-by').disable('etag').set('trust proxy', services.config.proxies);
  app.use('/api', buildApi(services, endpoints));
  app.use(securityHeaders(isSecure(services.config)), permissionsPolicy, compression({ threshold: 2048 }));
  serveWeb(app, services.config.webFolder);
  app.use(errorHandler(services));
  return app;
}

/** Everything that the server answers: the routes of running sittings at once, all others by way of Express. */
export function buildListener(services: Services, endpoints: readonly Endpoint[]): RequestListener {
  const direct = directRoutes(services, endpoints, isSecure(services.config));
  const app = buildApp(services, endpoints);
  return (request, response) => {
    if (!direct(request, response)) void app(request, response);
  };
}
