import Joi from 'joi';
import { kindNames } from '../kinds/kindNames';
import { anyText, objectOf, oneOf, parsed } from '../validation/shapes';
import type { Form } from './form';

/** As far as the server relies on it; the paper as candidates see it is read by the kinds. */
const formSchema = objectOf<Form>({
  kind: oneOf(['form']),
  version: oneOf([1]),
  arrangements: Joi.object().unknown(),
  paper: Joi.object({
    questions: Joi.array()
      .items(
        Joi.object({
          item: anyText.required(),
          parts: Joi.array()
            .items(Joi.object({ target: anyText.required(), kind: oneOf(kindNames).required() }).unknown())
            .required(),
        }).unknown(),
      )
      .required(),
  }).unknown(),
});

/** Reads a stored form. Throws where it is of a version or has a kind of part that this code does not know. */
export const parseForm = (stored: unknown): Form => parsed(formSchema, stored);
