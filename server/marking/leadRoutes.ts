import Joi from 'joi';
import { objectOf, oneOf } from '../../core/validation/shapes';
import { COMPONENT_KEY } from '../../core/scoring/components';
import type { ItemSettings, OverallComment, RemarkMade, Settlement } from '../../core/marking/api';
import { standardUses } from '../../core/marking/mark';
import { forRoundStaff, forStaff, idParams, type Endpoint } from '../http/endpoint';
import { partParams, type PartParams } from '../http/partParams';
import type { Outbox } from '../mail/outbox';
import type { ItemRef } from './items';
import {
  addStandard,
  answerAside,
  changeSettings,
  clarify,
  gapData,
  holdMarking,
  scriptForStandard,
  settleGap,
  type NewStandard,
} from './lead';
import { attachToRemark } from './remarkFile';
import { commentOn, remark } from './remarks';
import { qualityRead, similarPairRead, similarRead } from './quality';
import { ledRounds, signOffStates } from './reads';
import { newestIn, openOf, signOff, signOffItem } from './signOff';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasReader } from '../reading/reader';
import type { HasFiles } from '../files/files';
import type { HasPictures } from '../pictures/pictures';
import { comment, given, hundredths, id, nothing, reason, refOf } from './bodies';

/** What is needed here of the server. */
export interface LeadNeeds
  extends
    HasConfig,
    HasClock,
    HasDb,
    HasCommits,
    HasHub,
    HasFiles,
    HasPictures,
    HasReader,
    HasJobs,
    HasSecret {}

/** Programs may sign off without having looked; pages always say what they showed. */
const signOffBody = Joi.object<{ seen?: number }>({ seen: Joi.number().integer().min(0) });
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
const gapParams = objectOf<{ round: number; gap: number }>({ round: id, gap: id });
const script = Joi.string().pattern(/^[A-Z0-9]{4,20}$/);
const scriptParams = partParams.append({ script: script.required() }) as Joi.ObjectSchema<
  PartParams & { script: string }
>;
const pairParams = partParams.append({
  first: script.required(),
  second: script.required(),
}) as Joi.ObjectSchema<PartParams & { first: string; second: string }>;

export function leadEndpoints(services: LeadNeeds, outbox: Outbox): Endpoint[] {
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
