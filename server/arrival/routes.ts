import { rateLimit } from 'express-rate-limit';
import Joi from 'joi';
import { checkNames, type CheckResult } from '../../core/arrival/checks';
import { forAnyone, forCandidates, type Endpoint } from '../http/endpoint';
import { ApiError } from '../http/errors';
import { sha256 } from '../http/secrets';
import type { Services } from '../services';
import {
  acceptRules,
  arrivalView,
  confirmDetails,
  goWithoutPicture,
  keepPicture,
  noteChecks,
} from './operations';
import { findByLink } from './queries';

const linkBody = Joi.object<{ link: string }>({
  link: Joi.string()
    .pattern(/^[\w-]{1,80}$/)
    .required(),
});
const detailsBody = Joi.object<{ correction: string | null }>({
  correction: Joi.string().trim().max(500).allow(null).required(),
});
const fact = Joi.alternatives(Joi.string().max(200), Joi.number(), Joi.boolean());
const checksBody = Joi.object<{ results: CheckResult[]; goOn: boolean }>({
  results: Joi.array()
    .items(
      Joi.object({
        name: Joi.valid(...checkNames).required(),
        outcome: Joi.valid('good', 'could be better', 'not working').required(),
        facts: Joi.object().pattern(Joi.string().max(40), fact).max(20).required(),
      }),
    )
    .max(10)
    .unique('name')
    .required(),
  goOn: Joi.boolean().required(),
});
const rulesBody = Joi.object<{ version: string; accepted: string[] }>({
  version: Joi.string().max(40).required(),
  accepted: Joi.array().items(Joi.string().max(40)).max(20).required(),
});

const wrongLink = () =>
  new ApiError(
    404,
    'wrong-link',
    'This link does not lead to a test. Copy the whole link from your letter and try again.',
  );

/** Guessing links is hopeless (160 bits); this only keeps it from being loud. */
export const linkLimit = rateLimit({
  windowMs: 60_000,
  limit: 120,
  skipSuccessfulRequests: true,
  handler: () => {
    throw new ApiError(
      429,
      'too-many-tries',
      'Too many links were tried from here. Wait a minute and open yours again.',
    );
  },
});

export function arrivalEndpoints(services: Services): Endpoint[] {
  const { db, sessions } = services;
  return [
    forAnyone({ method: 'post', path: '/arrival/open', body: linkBody }, ({ body, request, response }) => {
      const found = findByLink(db, sha256(body.link));
      if (!found) throw wrongLink();
      if (sessions.candidateOf(request)?.invitation !== found.id)
        sessions.openForCandidate(response, found.id);
      return arrivalView(services, found.id);
    }),
    forCandidates({ method: 'get', path: '/arrival' }, (who) => arrivalView(services, who.invitation)),
    forCandidates({ method: 'post', path: '/arrival/details', body: detailsBody }, (who, { body }) => {
      confirmDetails(services, who.invitation, body.correction);
      return arrivalView(services, who.invitation);
    }),
    forCandidates({ method: 'post', path: '/arrival/checks', body: checksBody }, (who, { body }) => {
      noteChecks(services, who.invitation, body.results, body.goOn);
      return arrivalView(services, who.invitation);
    }),
    forCandidates({ method: 'put', path: '/arrival/picture', body: 'bytes' }, async (who, { body }) => {
      await keepPicture(services, who.invitation, body);
      return arrivalView(services, who.invitation);
    }),
    forCandidates({ method: 'post', path: '/arrival/no-picture', body: Joi.object({}) }, (who) => {
      goWithoutPicture(services, who.invitation);
      return arrivalView(services, who.invitation);
    }),
    forCandidates({ method: 'post', path: '/arrival/rules', body: rulesBody }, (who, { body }) => {
      acceptRules(services, who.invitation, body.version, body.accepted);
      return arrivalView(services, who.invitation);
    }),
  ];
}
