import Joi from 'joi';
import '../kinds/candidateKinds';
import { kindNames } from '../kinds/kindNames';
import { questionsOfToday } from '../papers/questionsOfToday';
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
export function parseForm(stored: unknown): Form {
  const form = parsed(formSchema, stored);
  return { ...form, paper: { ...form.paper, questions: questionsOfToday(form.paper.questions) } };
}
