import Joi from 'joi';
import { check, objectOf, oneOf, summaryOf } from '../../core/validation/shapes';
import { COMPONENT_KEY } from '../../core/scoring/components';
import type { RunAsked } from '../../core/kinds/contract';
import { asideReasons, type AsideReason, type MarkDraft, type MarkSent } from '../../core/marking/mark';
import type { MarginNote } from '../../core/marking/marginNote';
import { marginNotesSchema } from '../../core/marking/marginNoteSchema';
import { forRoundStaff, forStaff, idParams, type Endpoint } from '../http/endpoint';
import { badRequest } from '../http/errors';
import { partParams } from '../http/partParams';
import { listEndpoints } from '../reading/listEndpoints';
import { sendPage } from '../uploads/sendPage';
import { inspectTask, runTaskAgain } from './caseEvidence';
import { giveMark, keepDraft, setAside, takeBack } from './give';
import { addPhrase, readClarification, removePhrase } from './lead';
import { declareInterest } from './interests';
import { pilesList } from './reads';
import { readTold } from './standardTold';
import { markedBy, markingTable, pagesOfTask, phrasesFor } from './table';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasSessions } from '../http/sessions';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasReader } from '../reading/reader';
import { perMinute } from '../http/limits';
import type { HasEvidence } from '../scoring/findEvidence';
import type { HasUploads } from '../uploads/uploads';
import { comment, given, hundredths, id, nothing, reason, refOf } from './bodies';

/** What is needed here of the server. */
export interface AssessorNeeds
  extends HasClock, HasDb, HasCommits, HasHub, HasSessions, HasUploads, HasEvidence, HasReader, HasSecret {}

const draftMembers = {
  given,
  comment,
  notes: Joi.array().max(200).default([]),
  overrides: Joi.object()
    .pattern(COMPONENT_KEY, Joi.object({ hundredths: hundredths.required(), reason }))
    .max(40)
    .default({}),
};
const draftBody = objectOf<MarkDraft>(draftMembers);
const markBody = objectOf<MarkSent>({
  ...draftMembers,
  // Without it: nothing was seen.
  seen: Joi.number().integer().min(1).allow(null).default(null),
});
const asideBody = objectOf<{ reason: AsideReason; note: string }>({
  reason: oneOf(asideReasons),
  note: Joi.string().trim().allow('').max(1000),
});
const runBody = Joi.object<RunAsked>({
  case: Joi.string().max(40),
  input: Joi.string().allow('').max(20_000),
}).xor('case', 'input');
/** Each takes a turn in the box, where candidates' programs wait as well. */
const RUNS_A_MINUTE = 30;
const phraseBody = objectOf<{ text: string; shared: boolean }>({
  text: Joi.string().trim().min(2).max(300),
  shared: Joi.boolean(),
});
const phraseParams = objectOf<{ round: number; phrase: number }>({ round: id, phrase: id });
const taskPageParams = idParams.append({
  hash: Joi.string()
    .pattern(/^[0-9a-f]{64}$/)
    .required(),
}) as Joi.ObjectSchema<{ id: number; hash: string }>;
/** Margin notes as they are kept; refused where one has no place. */
function notesOf(notes: unknown): MarginNote[] {
  const checked = check(marginNotesSchema, notes);
  if ('problems' in checked) throw badRequest('notesNotPossible', summaryOf(checked.problems));
  return checked.value;
}

const markers = ['assessor', 'lead'] as const;

export function assessorEndpoints(services: AssessorNeeds): Endpoint[] {
  const { db } = services;
  const countRuns = perMinute(RUNS_A_MINUTE, 'tooManyRuns');
  return [
    ...listEndpoints(services, pilesList, '/marking/piles', (path, answer) =>
      forStaff(markers, { method: 'get', path }, (who, { request }) => answer({ staffId: who.id }, request)),
    ),
    forRoundStaff(
      markers,
      { method: 'get', path: '/marking/piles/:round/:item/:part', params: partParams },
      (who, { params }) => markingTable(services, who.id, refOf(params)),
    ),
    forRoundStaff(
      markers,
      { method: 'get', path: '/marking/piles/:round/:item/:part/marked', params: partParams },
      (who, { params }) => markedBy(services, refOf(params), who.id),
    ),
    forStaff(
      markers,
      { method: 'get', path: '/marking/tasks/:id/pages/:hash', params: taskPageParams },
      (who, { params, response }) =>
        sendPage(services, pagesOfTask(services, who.id, params.id, params.hash), params.hash, response),
    ),
    forStaff(
      markers,
      { method: 'get', path: '/marking/tasks/:id/evidence', params: idParams },
      (who, { params }) => ({
        found: inspectTask(services, who.id, params.id),
      }),
    ),
    forStaff(
      markers,
      {
        method: 'post',
        path: '/marking/tasks/:id/run',
        params: idParams,
        body: runBody,
        count: (_, who) => countRuns(String(who.id)),
      },
      (who, { params, body }) => runTaskAgain(services, who.id, { taskId: params.id, asked: body }),
    ),
    forStaff(
      markers,
      { method: 'post', path: '/marking/tasks/:id', params: idParams, body: markBody },
      (who, { params, body }) =>
        giveMark(services, who.id, params.id, { ...body, notes: notesOf(body.notes) }),
    ),
    forStaff(
      markers,
      { method: 'put', path: '/marking/tasks/:id/draft', params: idParams, body: draftBody },
      (who, { params, body }) => {
        keepDraft(services, who.id, params.id, { ...body, notes: notesOf(body.notes) });
        return {};
      },
    ),
    forStaff(
      markers,
      { method: 'post', path: '/marking/tasks/:id/take-back', params: idParams, body: nothing },
      (who, { params }) => {
        takeBack(services, who.id, params.id);
        return {};
      },
    ),
    forStaff(
      markers,
      { method: 'post', path: '/marking/tasks/:id/told', params: idParams, body: nothing },
      (who, { params }) => {
        readTold(services, who.id, params.id);
        return {};
      },
    ),
    forStaff(
      markers,
      { method: 'post', path: '/marking/tasks/:id/interest', params: idParams, body: nothing },
      async (who, { params }) => {
        await declareInterest(services, who.id, params.id);
        return {};
      },
    ),
    forStaff(
      markers,
      { method: 'post', path: '/marking/tasks/:id/set-aside', params: idParams, body: asideBody },
      (who, { params, body }) => {
        setAside(services, who.id, params.id, body);
        return {};
      },
    ),
    forStaff(
      markers,
      { method: 'post', path: '/marking/clarifications/:id/read', params: idParams, body: nothing },
      (who, { params }) => {
        readClarification(services, who.id, params.id);
        return {};
      },
    ),
    forRoundStaff(
      markers,
      { method: 'post', path: '/marking/rounds/:id/phrases', params: idParams, body: phraseBody },
      (who, { params, body }) => {
        addPhrase(services, who.id, { round: params.id, ...body });
        return phrasesFor(db, who.id, params.id);
      },
    ),
    forRoundStaff(
      markers,
      {
        method: 'post',
        path: '/marking/rounds/:round/phrases/:phrase/remove',
        params: phraseParams,
        body: nothing,
      },
      (who, { params }) => {
        removePhrase(services, who.id, params.phrase);
        return phrasesFor(db, who.id, params.round);
      },
    ),
  ];
}
