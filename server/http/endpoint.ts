import express, { type Request, type RequestHandler, type Response, type Router } from 'express';
import type { ServerResponse } from 'node:http';
import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import type { Role } from '../../core/rounds/api';
import { badRequest, linkNeeded, notAllowed, notSignedIn } from './errors';
import type { CandidateSession, Sessions, StaffSession } from './sessions';
import type { HasScheduler } from '../machine/loopScheduler';
import type { HasSessions } from './sessions';

export interface Call<Body, Params> {
  readonly body: Body;
  readonly params: Params;
  readonly request: Request;
  readonly response: Response;
}

interface Shape<Body, Params, Who> {
  readonly method: 'get' | 'post' | 'put';
  readonly path: string;
  readonly params?: Joi.ObjectSchema<Params>;
  /** Every POST and PUT names what it takes. */
  readonly body?: Joi.ObjectSchema<Body> | RawBody;
  /** How long JSON may be, in kB, where it differs from what those who call the route usually send. */
  readonly limitKb?: number;
  /** Counts the request, and refuses one too many: before any of its body is read. */
  readonly count?: (request: Request, who: Who) => Promise<void>;
  /** Of those who sit a test now: done before everything else. */
  readonly first?: true;
}

/** A body that is taken as it is. */
export interface RawBody {
  readonly type: 'application/octet-stream' | 'image/jpeg' | 'application/json';
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
  /** How long JSON may be, in kB. */
  readonly limitKb: number;
  /** Tells who asks; refuses whom the route is not for, and who asks too often. Called before any of the body is read. */
  readonly admit: (sessions: Sessions, request: Request) => unknown;
  readonly run: (who: never, request: Request, response: Response) => unknown;
}

const nothing = Joi.object({});

function validate<T>(schema: Joi.ObjectSchema<T>, value: unknown): T {
  const checked = schema.validate(value ?? {}, { convert: false, abortEarly: true });
  if (checked.error) throw badRequest('malformedBody', checked.error.message);
  return checked.value;
}

function paramsOf<Params>(
  { params }: { readonly params?: Joi.ObjectSchema<Params> | undefined },
  request: Request,
): Params {
  // A path without places to fill has no params to check.
  const checked = params?.validate(request.params);
  if (checked?.error) throw badRequest('malformedParams', checked.error.message);
  return checked?.value as Params;
}

function call<Body, Params>(
  shape: Shape<Body, Params, never>,
  request: Request,
  response: Response,
): Call<Body, Params> {
  const body = isRaw(shape.body)
    ? (request.body as Body)
    : validate(shape.body ?? (nothing as Joi.ObjectSchema<Body>), request.body);
  return { body, params: paramsOf(shape, request), request, response };
}

/** How long JSON may be by who sends it, in kB: parsing what is longer would hold up everybody. */
const USUAL_LIMITS_KB = { anyone: 4, candidate: 16, staff: 512 };
/** A device's batch of entries, of which one may have 256 kB. */
export const JOURNAL_LIMIT_KB = 512;

const jsonReaders = new Map<number, RequestHandler>();
function readJson(limitKb: number): RequestHandler {
  const known = jsonReaders.get(limitKb) ?? express.json({ limit: limitKb * 1024, strict: true });
  jsonReaders.set(limitKb, known);
  return known;
}

interface Admission<Who> {
  readonly who: Endpoint['who'];
  readonly admit: (sessions: Sessions, request: Request) => Who;
}

/** An endpoint of a shape, for those who are admitted. */
function endpoint<B, P, Who>(
  shape: Shape<B, P, Who>,
  { who, admit }: Admission<Who>,
  handle: (who: Who, call: Call<B, P>) => unknown,
): Endpoint {
  const { method, path, body, count, first = false } = shape;
  const limitKb = shape.limitKb ?? USUAL_LIMITS_KB[who === 'anyone' || who === 'candidate' ? who : 'staff'];
  const reads = method === 'get' ? null : isRaw(body) ? express.raw(body) : readJson(limitKb);
  return {
    method,
    path,
    who,
    first,
    reads,
    limitKb,
    checksBody: method === 'get' || body !== undefined,
    admit: (sessions, request) => {
      const found = admit(sessions, request);
      return count ? count(request, found).then(() => found) : found;
    },
    run: (found: Who, request, response) => handle(found, call(shape, request, response)),
  };
}

export const forAnyone = <B, P>(shape: Shape<B, P, null>, handle: (call: Call<B, P>) => unknown): Endpoint =>
  endpoint(shape, { who: 'anyone', admit: () => null }, (_, asked) => handle(asked));

/** Which candidate asks; refused where none has opened their link. */
function candidateIn(sessions: Sessions, request: Request): CandidateSession {
  const who = sessions.candidateOf(request);
  if (!who) throw linkNeeded();
  return who;
}

export const forCandidates = <B, P>(
  shape: Shape<B, P, CandidateSession>,
  handle: (who: CandidateSession, call: Call<B, P>) => unknown,
): Endpoint => endpoint(shape, { who: 'candidate', admit: candidateIn }, handle);

/** Who of the staff asks; refused where nobody is signed in, or without one of these roles. */
const staffWith =
  (roles: readonly Role[]) =>
  (sessions: Sessions, request: Request): StaffSession => {
    const who = sessions.staffOf(request);
    if (!who) throw notSignedIn();
    if (!roles.some((role) => who.roles.includes(role))) throw notAllowed();
    return who;
  };

export const forStaff = <B, P>(
  roles: readonly Role[],
  shape: Shape<B, P, StaffSession>,
  handle: (who: StaffSession, call: Call<B, P>) => unknown,
): Endpoint => endpoint(shape, { who: roles, admit: staffWith(roles) }, handle);

/** As `forStaff`, for routes about one round (`:id`, or `:round` where both are named): the role is needed in it. */
export const forRoundStaff = <B, P extends { readonly id?: number; readonly round?: number }>(
  roles: readonly Role[],
  shape: Shape<B, P, StaffSession>,
  handle: (who: StaffSession, call: Call<B, P>) => unknown,
): Endpoint =>
  endpoint(
    shape,
    {
      who: roles,
      admit: (sessions, request) => {
        const who = staffWith(roles)(sessions, request);
        const params = paramsOf(shape, request);
        const round = params.round ?? params.id!;
        if (sessions.roundExists(round) && !sessions.hasRole(who.id, round, roles)) throw notAllowed();
        return who;
      },
    },
    handle,
  );

/** As `response.json`, without what only answers that are kept somewhere need: it is done at every save. */
export function sendJson(response: ServerResponse, result: unknown): void {
  const text = JSON.stringify(result);
  response.setHeader('Content-Type', 'application/json; charset=utf-8');
  response.setHeader('Content-Length', Buffer.byteLength(text));
  response.end(text);
}

/** Hangs endpoints into a router; what a handler returns is sent as JSON, undefined where it answered by itself. */
export function mount(
  router: Router,
  { sessions, scheduler }: HasScheduler & HasSessions,
  endpoints: readonly Endpoint[],
): void {
  for (const endpoint of endpoints) {
    const { method, path, reads } = endpoint;
    const admit: RequestHandler = async (request, response, next) => {
      response.locals.who = await endpoint.admit(sessions, request);
      next();
    };
    const answer = async (request: Request, response: Response) => {
      const work = () => endpoint.run(response.locals.who as never, request, response);
      const result: unknown = await (endpoint.first ? scheduler.save(work) : scheduler.request(work));
      if (result !== undefined && !response.headersSent) sendJson(response, result);
    };
    router[method](path, admit, ...(reads ? [reads] : []), answer);
  }
}

export const idParams = objectOf<{ id: number }>({ id: Joi.number().integer().min(1) });
