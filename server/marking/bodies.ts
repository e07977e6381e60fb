import Joi from 'joi';
import { COMPONENT_KEY } from '../../core/scoring/components';
import { targetIn, type PartParams } from '../http/partParams';
import type { ItemRef } from './items';

/* What the requests of assessors and of leads have in common. */

/** An act that its address says all of. */
export const nothing = Joi.object({});
export const hundredths = Joi.number().integer().min(0).max(100_000);
export const given = Joi.object()
  .pattern(
    COMPONENT_KEY,
    Joi.alternatives(hundredths, Joi.array().items(Joi.number().integer().min(0).max(30)).max(30)),
  )
  .max(40);
export const comment = Joi.string().allow('').max(4000);
export const reason = Joi.string().trim().min(2).max(1000).required();
export const id = Joi.number().integer().min(1).required();
export const refOf = (params: PartParams): ItemRef => ({ round: params.round, target: targetIn(params) });
