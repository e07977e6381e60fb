import Joi from 'joi';
import { objectOf, oneOf } from '../../core/validation/shapes';
import { sittingVerdicts, weights, type SittingVerdict, type Weight } from '../../core/observations/review';
import { forCandidates, forRoundStaff, idParams, type Endpoint } from '../http/endpoint';
import type { Outbox } from '../mail/outbox';
import { agree, ask, askedOf, explain, judge, weigh, type Reviewing } from './operations';
import { replayRead, reviewRead } from './reads';
import { versionsRead } from './versions';
import type { HasConfig } from '../config';
import type { HasDb } from '../db/open';
import type { HasClock } from '../machine/clock';
import type { HasReader } from '../reading/reader';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasReader {}

interface ReviewParams {
  readonly round: number;
  readonly invitation: number;
  readonly attempt: number;
}

const id = Joi.number().integer().min(1).required();
/** Attempt 0 is the newest one. */
const params = objectOf<ReviewParams>({
  round: id,
  invitation: id,
  attempt: Joi.number().integer().min(0).max(100),
});
const partOfSitting = params.append({
  item: Joi.string()
    .pattern(/^[a-z0-9-]{1,40}$/)
    .required(),
  part: Joi.string()
    .pattern(/^[A-F]$/)
    .required(),
}) as Joi.ObjectSchema<ReviewParams & { item: string; part: string }>;
const replayParams = partOfSitting.append({
  at: Joi.number().integer().min(0).max(1e14).required(),
}) as Joi.ObjectSchema<ReviewParams & { item: string; part: string; at: number }>;
const text = Joi.string().trim().min(2).max(1000).required();
const weighBody = objectOf<{ observation: number; weight: Weight; reason: string }>({
  observation: id,
  weight: oneOf(weights),
  reason: text,
});
const askBody = objectOf<{ observation: number | null; question: string }>({
  observation: Joi.number().integer().min(1).allow(null),
  question: text,
});
const judgeBody = objectOf<{ verdict: SittingVerdict; reason: string }>({
  verdict: oneOf(sittingVerdicts),
  reason: text,
});
const agreeBody = objectOf<{ id: number }>({ id });
const explainBody = objectOf<{ answer: string }>({
  answer: Joi.string().trim().min(1).max(4000),
});

const PATH = '/rounds/:round/review/:invitation/:attempt';
const reviewers = ['coordinator', 'invigilator'] as const;

export function reviewEndpoints(services: Needs, outbox: Outbox): Endpoint[] {
  const { reader } = services;
  const reviewing = (staffId: number, { round, invitation, attempt }: ReviewParams): Reviewing => ({
    staffId,
    round,
    invitation,
    attempt: attempt === 0 ? null : attempt,
  });
  const act = <B>(
    roles: readonly ('coordinator' | 'invigilator')[],
    path: string,
    body: Joi.ObjectSchema<B>,
    work: (who: Reviewing, body: B) => void,
  ) =>
    forRoundStaff(roles, { method: 'post', path: `${PATH}/${path}`, params, body }, (who, call) => {
      const own = reviewing(who.id, call.params);
      work(own, call.body);
      return reader.read(reviewRead, own);
    });
  return [
    forRoundStaff(reviewers, { method: 'get', path: PATH, params }, (who, call) =>
      reader.read(reviewRead, reviewing(who.id, call.params)),
    ),
    forRoundStaff(
      reviewers,
      { method: 'get', path: `${PATH}/replay/:item/:part/:at`, params: replayParams },
      (who, { params: { item, part, at, ...of } }) =>
        reader.read(replayRead, { ...reviewing(who.id, of), target: `${item}/${part}`, at }),
    ),
    forRoundStaff(
      reviewers,
      { method: 'get', path: `${PATH}/versions/:item/:part`, params: partOfSitting },
      (who, { params: { item, part, ...of } }) =>
        reader.read(versionsRead, { ...reviewing(who.id, of), target: `${item}/${part}` }),
    ),
    act(reviewers, 'weigh', weighBody, (who, body) => weigh(services, who, body)),
    act(reviewers, 'ask', askBody, (who, body) => ask(services, outbox, who, body)),
    act(['coordinator'], 'judge', judgeBody, (who, body) => judge(services, outbox, who, body)),
    act(['coordinator'], 'agree', agreeBody, (who, { id: verdict }) => agree(services, outbox, who, verdict)),
    forCandidates({ method: 'get', path: '/review-questions' }, (who) => askedOf(services, who.invitation)),
    forCandidates(
      { method: 'post', path: '/review-questions/:id', params: idParams, body: explainBody },
      (who, call) => {
        explain(services, who.invitation, call.params.id, call.body.answer);
        return askedOf(services, who.invitation);
      },
    ),
  ];
}
