import Joi from 'joi';
import { check, objectOf, oneOf, summaryOf } from '../../core/validation/shapes';
import { COMPONENT_KEY } from '../../core/scoring/components';
import type { RunAsked } from '../../core/kinds/contract';
import type { ItemSettings, OverallComment, RemarkMade, Settlement } from '../../core/marking/api';
import {
  asideReasons,
  standardUses,
  type AsideReason,
  type MarkDraft,
  type MarkSent,
} from '../../core/marking/mark';
import type { MarginNote } from '../../core/marking/marginNote';
import { marginNotesSchema } from '../../core/marking/marginNoteSchema';
import { forRoundStaff, forStaff, idParams, type Endpoint } from '../http/endpoint';
import { badRequest } from '../http/errors';
import { partParams, targetIn, type PartParams } from '../http/partParams';
import type { Outbox } from '../mail/outbox';
import { listEndpoints } from '../reading/listEndpoints';
import { sendPage } from '../uploads/sendPage';
import { inspectTask, runTaskAgain } from './caseEvidence';
import { giveMark, keepDraft, setAside, takeBack } from './give';
import type { ItemRef } from './items';
import {
  addPhrase,
  addStandard,
  answerAside,
  changeSettings,
  clarify,
  gapData,
  holdMarking,
  readClarification,
  removePhrase,
  scriptForStandard,
  settleGap,
  type NewStandard,
} from './lead';
import { attachToRemark } from './remarkFile';
import { commentOn, remark } from './remarks';
import { qualityRead, similarPairRead, similarRead } from './quality';
import { declareInterest } from './interests';
import { ledRounds, pilesList, signOffStates } from './reads';
import { newestIn, openOf, signOff, signOffItem } from './signOff';
import { readTold } from './standardTold';
import { markedBy, markingTable, pagesOfTask, phrasesFor } from './table';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasSessions } from '../http/sessions';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasReader } from '../reading/reader';
import type { HasFiles } from '../files/files';
import { perMinute } from '../http/limits';
import type { HasEvidence } from '../scoring/findEvidence';
import type { HasPictures } from '../pictures/pictures';
import type { HasUploads } from '../uploads/uploads';

/** What is needed here of the server. */
interface Needs
  extends
    HasConfig,
    HasClock,
    HasDb,
    HasCommits,
    HasHub,
    HasSessions,
    HasFiles,
    HasPictures,
    HasUploads,
    HasEvidence,
    HasReader,
    HasJobs,
    HasSecret {}

/** An act that its address says all of. */
const nothing = Joi.object({});
/** Programs may sign off without having looked; pages always say what they showed. */
const signOffBody = Joi.object<{ seen?: number }>({ seen: Joi.number().integer().min(0) });
const hundredths = Joi.number().integer().min(0).max(100_000);
const given = Joi.object()
  .pattern(
    COMPONENT_KEY,
    Joi.alternatives(hundredths, Joi.array().items(Joi.number().integer().min(0).max(30)).max(30)),
  )
  .max(40);
const comment = Joi.string().allow('').max(4000);
const reason = Joi.string().trim().min(2).max(1000).required();
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
const settingsBody = objectOf<ItemSettings>({
  doublePercent: Joi.number().integer().min(0).max(100),
  tolerance: hundredths,
  standardEvery: Joi.number().integer().min(2).max(1000),
});
const settleBody = objectOf<Settlement>({
  given: Joi.alternatives(oneOf(['first', 'second', 'mean']), given),
  comment,
  reason,
});
const standardBody = objectOf<NewStandard>({
  script: Joi.string().max(20),
  use: oneOf(standardUses),
  given,
  comment,
  reason,
});
const hundredthsOrLess = Joi.number().integer().min(-100_000).max(100_000);
const remarkBody = objectOf<RemarkMade>({
  before: hundredthsOrLess,
  script: Joi.string().max(20),
  target: Joi.string().pattern(/^[a-z0-9-]{1,40}\/[A-F]$/),
  component: Joi.string().pattern(COMPONENT_KEY),
  hundredths: hundredthsOrLess,
  reason,
});
const overallBody = objectOf<OverallComment>({
  script: Joi.string().max(20),
  text: Joi.string().trim().allow('').max(4000),
});
const remarkParams = idParams.append({ script: Joi.string().max(20) }) as Joi.ObjectSchema<{
  id: number;
  script: string;
}>;
/** A little more than a file may be, so that one that is too large is told so. */
const remarkFileBody = { type: 'application/octet-stream', limit: '13mb' } as const;
const holdBody = objectOf<{ assessor: number; held: boolean; reason: string }>({
  assessor: Joi.number().integer().min(1),
  held: Joi.boolean(),
  reason,
});
const answerBody = objectOf<{ id: number; answer: string }>({
  id: Joi.number().integer().min(1),
  answer: reason,
});
const textBody = objectOf<{ text: string }>({ text: Joi.string().trim().min(2).max(2000) });
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
const id = Joi.number().integer().min(1).required();
const phraseParams = objectOf<{ round: number; phrase: number }>({ round: id, phrase: id });
const gapParams = objectOf<{ round: number; gap: number }>({ round: id, gap: id });
const script = Joi.string().pattern(/^[A-Z0-9]{4,20}$/);
const scriptParams = partParams.append({ script: script.required() }) as Joi.ObjectSchema<
  PartParams & { script: string }
>;
const pairParams = partParams.append({
  first: script.required(),
  second: script.required(),
}) as Joi.ObjectSchema<PartParams & { first: string; second: string }>;
const taskPageParams = idParams.append({
  hash: Joi.string()
    .pattern(/^[0-9a-f]{64}$/)
    .required(),
}) as Joi.ObjectSchema<{ id: number; hash: string }>;

const refOf = (params: PartParams): ItemRef => ({ round: params.round, target: targetIn(params) });

/** Margin notes as they are kept; refused where one has no place. */
function notesOf(notes: unknown): MarginNote[] {
  const checked = check(marginNotesSchema, notes);
  if ('problems' in checked) throw badRequest('notesNotPossible', summaryOf(checked.problems));
  return checked.value;
}

const markers = ['assessor', 'lead'] as const;

function assessorEndpoints(services: Needs): Endpoint[] {
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

function leadEndpoints(services: Needs, outbox: Outbox): Endpoint[] {
  const { reader } = services;
  const quality = async (ref: ItemRef) => {
    const found = await reader.read(qualityRead, ref);
    const newest = newestIn(services, ref);
    return {
      ...found,
      newest,
      open: found.signedOffAt === null ? openOf(services, ref.round, ref.target) : [],
    };
  };
  const item = '/marking/quality/:round/:item/:part';
  /** An act on an item, after which its page is read again. */
  const act = <B>(
    path: string,
    body: Joi.ObjectSchema<B> | undefined,
    work: (staffId: number, ref: ItemRef, body: B) => void | Promise<void>,
  ) =>
    forRoundStaff(
      ['lead'],
      {
        method: 'post',
        path: `${item}/${path}`,
        params: partParams,
        body: body ?? (Joi.object({}) as never),
      },
      async (who, call) => {
        await work(who.id, refOf(call.params), call.body);
        return quality(refOf(call.params));
      },
    );
  return [
    forStaff(['lead'], { method: 'get', path: '/marking/rounds' }, (who) =>
      reader.read(ledRounds, { staffId: who.id }),
    ),
    forRoundStaff(['lead'], { method: 'get', path: item, params: partParams }, (_, { params }) =>
      quality(refOf(params)),
    ),
    act('settings', settingsBody, (staffId, ref, body) => changeSettings(services, staffId, ref, body)),
    act('hold', holdBody, (staffId, ref, body) => holdMarking(services, staffId, ref, body)),
    act('absence', holdBody, (staffId, { round }, body) =>
      holdMarking(services, staffId, { round, target: '' }, body),
    ),
    act('answer', answerBody, (staffId, { round }, body) =>
      answerAside(services, staffId, { round, ...body }),
    ),
    act('clarify', textBody, (staffId, ref, { text }) => clarify(services, staffId, ref, text)),
    act('standards', standardBody, (staffId, ref, body) => addStandard(services, staffId, ref, body)),
    act('sign-off', signOffBody, (staffId, ref, { seen }) => signOffItem(services, staffId, ref, seen)),
    forRoundStaff(
      ['lead'],
      { method: 'get', path: `${item}/scripts/:script`, params: scriptParams },
      (_, { params }) => scriptForStandard(services, refOf(params), params.script),
    ),
    forRoundStaff(['lead'], { method: 'get', path: `${item}/similar`, params: partParams }, (_, { params }) =>
      reader.read(similarRead, refOf(params)),
    ),
    forRoundStaff(
      ['lead'],
      { method: 'get', path: `${item}/similar/:first/:second`, params: pairParams },
      (_, { params }) =>
        reader.read(similarPairRead, { ...refOf(params), scripts: [params.first, params.second] }),
    ),
    forRoundStaff(
      ['lead'],
      { method: 'get', path: '/marking/rounds/:round/gaps/:gap', params: gapParams },
      (_, { params }) => gapData(services, params.round, params.gap),
    ),
    forRoundStaff(
      ['lead'],
      { method: 'post', path: '/marking/rounds/:round/gaps/:gap', params: gapParams, body: settleBody },
      (who, { params, body }) => {
        settleGap(services, who.id, { round: params.round, id: params.gap }, body);
        return {};
      },
    ),
    forRoundStaff(
      ['lead'],
      { method: 'post', path: '/marking/rounds/:id/remarks', params: idParams, body: remarkBody },
      (who, { params, body }) => {
        remark(services, outbox, who.id, params.id, body);
        return {};
      },
    ),
    forRoundStaff(
      ['lead'],
      { method: 'post', path: '/marking/rounds/:id/overall-comments', params: idParams, body: overallBody },
      (who, { params, body }) => {
        commentOn(services, who.id, params.id, body);
        return {};
      },
    ),
    forRoundStaff(
      ['lead'],
      {
        method: 'post',
        path: '/marking/rounds/:id/overall-comments/:script/file',
        params: remarkParams,
        body: remarkFileBody,
      },
      async (who, { params, body }) => {
        const bytes = body instanceof Uint8Array ? body : new Uint8Array();
        await attachToRemark(services, who.id, { round: params.id, script: params.script, bytes });
        return {};
      },
    ),
    forRoundStaff(
      ['lead'],
      {
        method: 'post',
        path: '/marking/rounds/:id/overall-comments/:script/no-file',
        params: remarkParams,
        body: nothing,
      },
      async (who, { params }) => {
        await attachToRemark(services, who.id, { round: params.id, script: params.script, bytes: null });
        return {};
      },
    ),
    forRoundStaff(
      ['lead'],
      { method: 'post', path: '/marking/rounds/:id/sign-off', params: idParams, body: signOffBody },
      (who, { params, body }) => {
        signOff(services, who.id, params.id, body.seen);
        return signOffStates(services, [params.id])[0];
      },
    ),
  ];
}

export const markingEndpoints = (services: Needs, outbox: Outbox): Endpoint[] => [
  ...assessorEndpoints(services),
  ...leadEndpoints(services, outbox),
];
