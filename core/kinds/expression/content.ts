import * as v from 'valibot';
import { FORMS } from '../../expressions/forms';
import { TOOLS } from './response';

const text = v.pipe(v.string(), v.maxLength(100));
const letter = v.pipe(v.string(), v.regex(/^[A-Za-z]$/));
const percent = v.pipe(v.number(), v.integer(), v.minValue(0), v.maxValue(100));
const end = v.pipe(v.number(), v.finite());

export const askedSchema = v.strictObject({
  before: text,
  after: text,
  tools: v.array(v.picklist(TOOLS)),
  /** A comma parts entries: for answers that are several values. */
  list: v.boolean(),
  /** Letters that are unknowns where they would be read otherwise: e, i, f, g, h. */
  letters: v.pipe(v.array(letter), v.maxLength(20)),
  /** Letters that are functions. */
  functions: v.pipe(v.array(letter), v.maxLength(10)),
  form: v.nullable(v.picklist(FORMS)),
});
export type ExpressionAsked = v.InferOutput<typeof askedSchema>;

const accepted = v.strictObject({
  latex: v.pipe(v.string(), v.minLength(1), v.maxLength(2000)),
  percent: v.pipe(percent, v.minValue(1)),
  note: v.string(),
});

export const keySchema = v.strictObject({
  accepted: v.pipe(v.array(accepted), v.minLength(1), v.maxLength(10)),
  /** What the right value earns in another form, in per cent; asked only where a form is. */
  otherForm: percent,
  /** Where the letters may lie; anywhere where nothing is said. */
  domain: v.record(
    letter,
    v.strictObject({
      from: v.optional(end),
      to: v.optional(end),
      fromOpen: v.optional(v.boolean()),
      toOpen: v.optional(v.boolean()),
      whole: v.optional(v.boolean()),
    }),
  ),
  /** The base of a logarithm that is written without one. */
  log: v.picklist([10, 'e']),
});
export type ExpressionKey = v.InferOutput<typeof keySchema>;
