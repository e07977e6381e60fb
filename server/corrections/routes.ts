import Joi from 'joi';
import type { BandsMade, CorrectionMade, WantedChange } from '../../core/corrections/api';
import { rulings } from '../../core/papers/ruling';
import { COMPONENT_KEY } from '../../core/scoring/components';
import { listOf, objectOf, oneOf, sha256, whole } from '../../core/validation/shapes';
import { forRoundStaff, idParams, type Endpoint } from '../http/endpoint';
import { badRequest } from '../http/errors';
import { partParams, targetIn, type PartParams } from '../http/partParams';
import { keyOfFile } from './keyOfFile';
import type { Needs as ScoringNeeds } from './moves';
import { correct, previewCorrection, setBands } from './operations';
import { bandsRead, correctionsRead } from './reads';
import type { HasPaperReader } from '../papers/paperReader';
import type { HasReader } from '../reading/reader';

/** What is needed here of the server. */
interface Needs extends ScoringNeeds, HasReader, HasPaperReader {}

const change = Joi.alternatives<WantedChange>(
  Joi.object({
    type: Joi.valid('accept').required(),
    component: Joi.string().pattern(COMPONENT_KEY).required(),
    answer: Joi.string().max(400).required(),
  }),
  // What a key may be its kind says.
  Joi.object({ type: Joi.valid('key').required(), key: Joi.object().unknown().required() }),
  Joi.object({ type: Joi.valid('ruling').required(), ruling: oneOf(rulings).required() }),
  Joi.object({ type: Joi.valid('take back').required(), correction: whole(1).required() }),
).required();
const reason = Joi.string().trim().min(3).max(1000);

const previewBody = objectOf<{ readonly change: WantedChange }>({ change });
const correctionBody = objectOf<CorrectionMade>({ change, reason, seen: sha256 });
const bandsBody = objectOf<BandsMade>({
  bands: listOf(
    objectOf<BandsMade['bands'][number]>({
      title: Joi.string().trim().min(1).max(80),
      from: whole(0, 10_000_000),
    }),
    { most: 20 },
  ),
  reason,
});
const correctedFile = { type: 'application/octet-stream', limit: '100mb' } as const;

const PART = '/rounds/:round/corrections/:item/:part';

/** What a lead corrects of a part, and the bands of a round. */
export function correctionEndpoints(services: Needs): Endpoint[] {
  const lead = ['lead'] as const;
  return [
    forRoundStaff(lead, { method: 'get', path: PART, params: partParams }, (_, { params }) =>
      services.reader.read(correctionsRead, { round: params.round, target: targetIn(params) }),
    ),
    forRoundStaff(
      lead,
      { method: 'post', path: `${PART}/preview`, params: partParams, body: previewBody },
      (_, { params, body }) => previewCorrection(services, params.round, targetIn(params), body.change),
    ),
    forRoundStaff(
      lead,
      { method: 'post', path: PART, params: partParams, body: correctionBody },
      (who, { params, body }) =>
        correct(services, { staffId: who.id, roundId: params.round }, targetIn(params), body),
    ),
    forRoundStaff<unknown, PartParams>(
      lead,
      { method: 'post', path: `${PART}/file`, params: partParams, body: correctedFile },
      (_, { params, body }) => {
        if (!(body instanceof Uint8Array)) throw badRequest('malformed');
        return keyOfFile(services, params.round, targetIn(params), body);
      },
    ),
    forRoundStaff(lead, { method: 'get', path: '/rounds/:id/bands', params: idParams }, (_, { params }) =>
      services.reader.read(bandsRead, { round: params.id }),
    ),
    forRoundStaff(
      lead,
      { method: 'post', path: '/rounds/:id/bands', params: idParams, body: bandsBody },
      (who, { params, body }) => {
        setBands(services, who.id, params.id, body);
        return {};
      },
    ),
  ];
}
