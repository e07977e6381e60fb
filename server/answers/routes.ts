import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import type { AcceptedAnswer } from '../../core/answers/api';
import { COMPONENT_KEY } from '../../core/scoring/components';
import { forRoundStaff, idParams, type Endpoint } from '../http/endpoint';
import { partParams, targetIn } from '../http/partParams';
import { acceptAnswer, previewAccept } from './operations';
import { answersRead, partsRead } from './reads';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasLog } from '../machine/log';
import type { HasScheduler } from '../machine/loopScheduler';
import type { HasReader } from '../reading/reader';
import type { HasSandbox } from '../sandbox/sandbox';
import type { HasExpressions } from '../scoring/expressionJudge';
import type { HasScorer } from '../scoring/scorer';

/** What is needed here of the server. */
interface Needs
  extends
    HasConfig,
    HasClock,
    HasDb,
    HasCommits,
    HasHub,
    HasScheduler,
    HasLog,
    HasReader,
    HasJobs,
    HasSandbox,
    HasScorer,
    HasExpressions {}

const accepted = {
  component: Joi.string().pattern(COMPONENT_KEY).required(),
  answer: Joi.string().max(400).required(),
};
const previewBody = objectOf<AcceptedAnswer>(accepted);
const acceptBody = objectOf<AcceptedAnswer & { reason: string }>({
  ...accepted,
  reason: Joi.string().trim().min(3).max(1000),
});

const PART = '/rounds/:round/answers/:item/:part';

/** What was answered, for the lead of a round, who can accept an answer that the key does not have. */
export function answerEndpoints(services: Needs): Endpoint[] {
  return [
    forRoundStaff(
      ['lead'],
      { method: 'get', path: '/rounds/:id/answers', params: idParams },
      (_, { params }) => services.reader.read(partsRead, { round: params.id }),
    ),
    forRoundStaff(['lead'], { method: 'get', path: PART, params: partParams }, (_, { params }) =>
      services.reader.read(answersRead, { round: params.round, target: targetIn(params) }),
    ),
    forRoundStaff(
      ['lead'],
      { method: 'post', path: `${PART}/preview`, params: partParams, body: previewBody },
      (_, { params, body }) => previewAccept(services, params.round, { ...body, target: targetIn(params) }),
    ),
    forRoundStaff(
      ['lead'],
      { method: 'post', path: `${PART}/accept`, params: partParams, body: acceptBody },
      (who, { params, body }) => {
        const at = { staffId: who.id, roundId: params.round };
        acceptAnswer(services, at, { ...body, target: targetIn(params) });
        return {};
      },
    ),
  ];
}
