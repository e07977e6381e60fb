import Joi from 'joi';
import { objectOf, oneOf } from '../../core/validation/shapes';
import type { Head } from '../../core/journal/chain';
import type { EnterBody, HandInBody, HoldBody, JournalBatch, PlayBody } from '../../core/sittings/api';
import { forCandidates, JOURNAL_LIMIT_KB, type Endpoint } from '../http/endpoint';
import type { SittingOperations } from './operations';

const name = Joi.string()
  .pattern(/^[\w-]{8,40}$/)
  .required();
const time = Joi.number().min(0).max(1e14).required();
const anyHash = Joi.string().pattern(/^[0-9a-f]{64}$/);
const hash = anyHash.required();
const section = Joi.string()
  .pattern(/^[A-F]$/)
  .required();

const head = objectOf<Head>({
  hold: Joi.number().integer().min(1).max(10_000),
  token: Joi.string().max(40),
  number: Joi.number().integer().min(0).max(10_000_000),
  chain: hash,
  heard: time,
}).required();
/** Entries are read one by one, so that a bad one does not refuse its neighbours. */
const entries = Joi.array().max(2000).required();
const batch = { head, opening: name, entries };

const batchBody = objectOf<JournalBatch>(batch);
const enterBody = objectOf<EnterBody>({ ...batch, section });
const playBody = objectOf<PlayBody>({ ...batch, file: hash });
const handInBody = objectOf<HandInBody>({
  ...batch,
  by: oneOf(['candidate', 'time']),
  claimedAt: time,
});
const who = { store: name, opening: name, takeOver: Joi.boolean().required() };
const holdBody = objectOf<HoldBody>(who);
const startBody = objectOf<HoldBody & { sealed: string[] }>({
  ...who,
  sealed: Joi.array().items(anyHash).max(500),
});
const hashParams = objectOf<{ hash: string }>({ hash });
const partParams = objectOf<{ item: string; part: string }>({
  item: Joi.string().pattern(/^[a-z0-9-]{1,40}$/),
  part: section,
});

/** Sealed bytes change never; the folder of data may lie under a name with a dot. */
const SEND = { dotfiles: 'allow', etag: false, lastModified: false, cacheControl: false } as const;

const agentOf = (request: { readonly headers: { readonly 'user-agent'?: string } }) =>
  (request.headers['user-agent'] ?? '').slice(0, 300);

export function sittingEndpoints(operations: SittingOperations): Endpoint[] {
  return [
    forCandidates({ method: 'post', path: '/sitting/prepare', body: Joi.object({}) }, ({ invitation }) =>
      operations.prepare(invitation),
    ),
    forCandidates(
      { method: 'get', path: '/sitting/sealed/:hash', params: hashParams },
      ({ invitation }, { params, response }) => {
        response.set('Cache-Control', 'no-store').type('application/octet-stream');
        response.send(operations.sealed(invitation, params.hash));
      },
    ),
    forCandidates(
      { method: 'get', path: '/sitting/media/:hash', params: hashParams },
      ({ invitation }, { params, response }) => {
        response.set('Cache-Control', 'no-store').type('application/octet-stream');
        // In parts, as the device asks for them: what a cut line has brought is not fetched again.
        response.sendFile(operations.media(invitation, params.hash), SEND);
      },
    ),
    forCandidates(
      { first: true, limitKb: 64, method: 'post', path: '/sitting/start', body: startBody },
      ({ invitation }, { body: { sealed, ...asking }, request }) =>
        operations.start(invitation, sealed, asking, agentOf(request)),
    ),
    forCandidates(
      { first: true, method: 'post', path: '/sitting/hold', body: holdBody },
      ({ invitation }, { body, request }) => operations.hold(invitation, body, agentOf(request)),
    ),
    forCandidates(
      { first: true, limitKb: JOURNAL_LIMIT_KB, method: 'post', path: '/sitting/journal', body: batchBody },
      ({ invitation }, { body }) => operations.keep(invitation, body),
    ),
    forCandidates(
      { first: true, limitKb: JOURNAL_LIMIT_KB, method: 'post', path: '/sitting/enter', body: enterBody },
      ({ invitation }, { body }) => operations.enter(invitation, body),
    ),
    forCandidates(
      { first: true, limitKb: JOURNAL_LIMIT_KB, method: 'post', path: '/sitting/play', body: playBody },
      ({ invitation }, { body }) => operations.play(invitation, body),
    ),
    forCandidates(
      {
        first: true,
        limitKb: JOURNAL_LIMIT_KB,
        method: 'post',
        path: '/sitting/play/return',
        body: playBody,
      },
      ({ invitation }, { body }) => operations.returnPlay(invitation, body),
    ),
    forCandidates(
      { first: true, limitKb: JOURNAL_LIMIT_KB, method: 'post', path: '/sitting/break', body: batchBody },
      ({ invitation }, { body }) => operations.takeBreak(invitation, body),
    ),
    forCandidates(
      { first: true, limitKb: JOURNAL_LIMIT_KB, method: 'post', path: '/sitting/hand-in', body: handInBody },
      ({ invitation }, { body }) => operations.handIn(invitation, body),
    ),
    forCandidates(
      { method: 'get', path: '/sitting/versions/:item/:part', params: partParams },
      ({ invitation }, { params }) => operations.versions(invitation, `${params.item}/${params.part}`),
    ),
  ];
}
