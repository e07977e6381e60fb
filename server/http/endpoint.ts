import express, { type Request, type RequestHandler, type Response, type Router } from 'express';
import Joi from 'joi';
import type { Role } from '../../core/rounds/api';
import { badRequest, linkNeeded, notAllowed, notSignedIn } from './errors';
import type { Services } from '../services';
import type { CandidateSession, Sessions, StaffSession } from './sessions';

export interface Call<Body, Params> {
  readonly body: Body;
  readonly params: Params;
  readonly request: Request;
  readonly response: Response;
}

interface Shape<Body, Params> {
  readonly method: 'get' | 'post' | 'put';
  readonly path: string;
  readonly params?: Joi.ObjectSchema<Params>;
  /** Every POST and PUT names what it takes. */
  readonly body?: Joi.ObjectSchema<Body> | RawBody;
  /** How long JSON may be, where less than usual is enough. */
  readonly limit?: string;
  /** Of those who sit a test now: done before everything else. */
  readonly first?: true;
}

/** A body that is taken as it is. */
export interface RawBody {
  readonly type: 'application/octet-stream' | 'image/jpeg';
  readonly limit: string;
}

const isRaw = (body: unknown): body is RawBody => body !== undefined && !Joi.isSchema(body);

/** A route that anyone, a candidate or staff with one of some roles may call. Built by the functions below. */
export interface Endpoint {
  readonly method: 'get' | 'post' | 'put';
  readonly path: string;
  readonly who: 'anyone' | 'candidate' | readonly Role[];
  readonly checksBody: boolean;
  readonly first: boolean;
  /** Reads the body; null where none is expected. */
  readonly reads: RequestHandler | null;
  /** Is the body taken as it is? It may be large, and is read of those alone who may send it. */
  readonly isRaw: boolean;
  readonly run: (sessions: Sessions, request: Request, response: Response) => unknown;
}

const nothing = Joi.object({});

function validate<T>(schema: Joi.ObjectSchema<T>, value: unknown): T {
  const checked = schema.validate(value ?? {}, { convert: false, abortEarly: true });
  if (checked.error) throw badRequest('malformedBody', checked.error.message);
  return checked.value;
}

function paramsOf<Params>({ params }: Pick<Shape<unknown, Params>, 'params'>, request: Request): Params {
  // A path without places to fill has no params to check.
  const checked = params?.validate(request.params);
  if (checked?.error) throw badRequest('malformedParams', checked.error.message);
  return checked?.value as Params;
}

function call<Body, Params>(
  shape: Shape<Body, Params>,
  request: Request,
  response: Response,
): Call<Body, Params> {
  const body = isRaw(shape.body)
    ? (request.body as Body)
    : validate(shape.body ?? (nothing as Joi.ObjectSchema<Body>), request.body);
  return { body, params: paramsOf(shape, request), request, response };
}

const readJson = express.json({ limit: '512kb', strict: true });

function reading<B, P>({ method, body, limit }: Shape<B, P>): RequestHandler | null {
  if (method === 'get') return null;
  if (isRaw(body)) return express.raw(body);
  return limit === undefined ? readJson : express.json({ limit, strict: true });
}

const describe = <B, P>(shape: Shape<B, P>) => ({
  reads: reading(shape),
  isRaw: isRaw(shape.body),
  method: shape.method,
  path: shape.path,
  checksBody: shape.method === 'get' || shape.body !== undefined,
  first: shape.first === true,
});

export function forAnyone<B, P>(shape: Shape<B, P>, handle: (call: Call<B, P>) => unknown): Endpoint {
  return {
    ...describe(shape),
    who: 'anyone',
    run: (_, request, response) => handle(call(shape, request, response)),
  };
}

/** Which candidate asks; refused where none has opened their link. */
function candidateIn(sessions: Sessions, request: Request): CandidateSession {
  const who = sessions.candidateOf(request);
  if (!who) throw linkNeeded();
  return who;
}

export function forCandidates<B, P>(
  shape: Shape<B, P>,
  handle: (who: CandidateSession, call: Call<B, P>) => unknown,
): Endpoint {
  return {
    ...describe(shape),
    who: 'candidate',
    run: (sessions, request, response) => {
      const who = candidateIn(sessions, request);
      return handle(who, call(shape, request, response));
    },
  };
}

/** Who of the staff asks; refused where nobody is signed in, or without one of these roles. */
function staffWith(roles: readonly Role[], sessions: Sessions, request: Request): StaffSession {
  const who = sessions.staffOf(request);
  if (!who) throw notSignedIn();
  if (!roles.some((role) => who.roles.includes(role))) throw notAllowed();
  return who;
}

export function forStaff<B, P>(
  roles: readonly Role[],
  shape: Shape<B, P>,
  handle: (who: StaffSession, call: Call<B, P>) => unknown,
): Endpoint {
  return {
    ...describe(shape),
    who: roles,
    run: (sessions, request, response) => {
      const who = staffWith(roles, sessions, request);
      return handle(who, call(shape, request, response));
    },
  };
}

/** As `forStaff`, for routes about one round (`:id`, or `:round` where both are named): the role is needed in it. */
export function forRoundStaff<B, P extends { readonly id?: number; readonly round?: number }>(
  roles: readonly Role[],
  shape: Shape<B, P>,
  handle: (who: StaffSession, call: Call<B, P>) => unknown,
): Endpoint {
  return {
    ...describe(shape),
    who: roles,
    run: (sessions, request, response) => {
      const who = staffWith(roles, sessions, request);
      const params = paramsOf(shape, request);
      const round = params.round ?? params.id!;
      if (sessions.roundExists(round) && !sessions.hasRole(who.id, round, roles)) throw notAllowed();
      return handle(who, call(shape, request, response));
    },
  };
}

/** As `response.json`, without what only answers that are kept somewhere need: it is done at every save. */
function sendJson(response: Response, result: unknown): void {
  const text = JSON.stringify(result);
  response.setHeader('Content-Type', 'application/json; charset=utf-8');
  response.setHeader('Content-Length', Buffer.byteLength(text));
  response.end(text);
}

/** Hangs endpoints into a router; what a handler returns is sent as JSON, undefined where it answered by itself. */
export function mount(
  router: Router,
  { sessions, turns }: Pick<Services, 'sessions' | 'turns'>,
  endpoints: readonly Endpoint[],
): void {
  for (const endpoint of endpoints) {
    const { method, path, who, reads } = endpoint;
    const answer = async (request: Request, response: Response) => {
      const work = () => endpoint.run(sessions, request, response);
      const result: unknown = await (endpoint.first ? turns.save(work) : turns.request(work));
      if (result !== undefined && !response.headersSent) sendJson(response, result);
    };
    const allowed: RequestHandler = (request, _response, next) => {
      if (who === 'candidate') candidateIn(sessions, request);
      else if (who !== 'anyone') staffWith(who, sessions, request);
      next();
    };
    router[method](path, ...(endpoint.isRaw ? [allowed] : []), ...(reads ? [reads] : []), answer);
  }
}

export const idParams = Joi.object<{ id: number }>({ id: Joi.number().integer().min(1).required() });
