import { gunzipSync } from 'node:zlib';
import Joi from 'joi';
import { entryAbout, type Entry } from '../../core/journal/entry';
import type { HandInBody, JournalBatch } from '../../core/sittings/api';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { badRequest } from '../http/errors';
import type { SittingOperations } from './operations';

const entry = Joi.object<Entry>({
  device: Joi.string()
    .pattern(/^[\w-]{8,40}$/)
    .required(),
  seq: Joi.number().integer().min(1).max(10_000_000).required(),
  about: Joi.valid(...entryAbout).required(),
  target: Joi.string()
    .pattern(/^[a-z0-9-]{1,40}(\/[A-F])?$/)
    .required(),
  value: Joi.any().required(),
  at: Joi.number().min(0).max(1e14).required(),
});

const entries = Joi.array().items(entry).max(500).required();
const batchBody = Joi.object<JournalBatch>({ entries });
const handInBody = Joi.object<HandInBody>({
  entries,
  by: Joi.valid('candidate', 'time').required(),
  at: Joi.number().integer().min(0).max(1e14).required(),
});
const opening = Joi.string()
  .pattern(/^[\w-]{8,40}$/)
  .required();
const holdBody = Joi.object<{ opening: string; takeOver: boolean }>({
  opening,
  takeOver: Joi.boolean().required(),
});
const startBody = Joi.object<{ paperHash: string }>({ paperHash: Joi.string().hex().length(64).required() });
const hashParams = Joi.object<{ hash: string }>({ hash: Joi.string().hex().length(64).required() });

export function sittingEndpoints(operations: SittingOperations): Endpoint[] {
  return [
    forCandidates({ method: 'post', path: '/sitting/prepare', body: Joi.object({}) }, (who) =>
      operations.prepare(who.invitation),
    ),
    forCandidates(
      { method: 'get', path: '/sitting/paper/:hash', params: hashParams },
      (who, { params, request, response }) => {
        const packed = operations.paper(who.invitation, params.hash);
        response.set({ 'Cache-Control': 'private, max-age=31536000, immutable', Vary: 'Accept-Encoding' });
        if (request.acceptsEncodings('gzip'))
          response.set('Content-Encoding', 'gzip').type('json').send(packed);
        else response.type('json').send(gunzipSync(packed));
      },
    ),
    forCandidates({ method: 'post', path: '/sitting/start', body: startBody }, (who, { body }) =>
      operations.start(who.invitation, body.paperHash),
    ),
    forCandidates({ method: 'get', path: '/sitting' }, (who) => operations.opened(who.invitation)),
    forCandidates({ method: 'post', path: '/sitting/journal', body: batchBody }, (who, { body }) =>
      operations.keep(who.invitation, body.entries),
    ),
    forCandidates({ method: 'post', path: '/sitting/hand-in', body: handInBody }, (who, { body }) =>
      operations.handIn(who.invitation, body),
    ),
    forCandidates({ method: 'post', path: '/sitting/hold', body: holdBody }, (who, { body }) =>
      operations.hold(who.invitation, body.opening, body.takeOver),
    ),
    /** For the connection check, and the measure that durable saves are held against. */
    forAnyone({ method: 'post', path: '/echo', body: Joi.object().unknown() }, ({ body }) => {
      if (Array.isArray(body)) throw badRequest('An echo takes an object.');
      return body;
    }),
  ];
}
