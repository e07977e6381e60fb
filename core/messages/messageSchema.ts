import Joi from 'joi';
import { anyText, objectOf } from '../validation/shapes';
import type { Message } from './message';

export const messageSchema = objectOf<Message>({
  code: anyText,
  values: Joi.object<NonNullable<Message['values']>>()
    .pattern(/./, Joi.alternatives(anyText, Joi.number().unsafe()))
    .optional(),
});
