import * as v from 'valibot';
import { documentSchema } from '../../documents/documentSchema';
import { optionKey } from './response';

const option = v.strictObject({
  key: optionKey,
  /** Its words; where it has a body, what people hear who do not see that. */
  text: v.pipe(v.string(), v.minLength(1), v.maxLength(500)),
  /** A picture or a formula that is shown for the words. */
  body: v.optional(documentSchema),
});
const whole = v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(1000));

export const askedSchema = v.strictObject({
  options: v.pipe(v.array(option), v.minLength(2), v.maxLength(12)),
  mode: v.picklist(['one', 'several']),
  /** For `several`: exactly this many are to be chosen; null leaves it open. */
  choose: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1))),
  rule: v.picklist(['all-or-nothing', 'each', 'decisions']),
  /** What a wrong choice of one costs, as a fraction of the marks: exact, so that 1/3 stays a third. */
  penalty: v.nullable(v.strictObject({ over: whole, under: whole })),
  shuffle: v.boolean(),
});
export type ChoiceAsked = v.InferOutput<typeof askedSchema>;

export const keySchema = v.strictObject({ right: v.pipe(v.array(optionKey), v.minLength(1)) });
export type ChoiceKey = v.InferOutput<typeof keySchema>;

/** The options in the order in which they are dealt, by key. */
export const arrangementSchema = v.array(optionKey);
export type ChoiceArrangement = v.InferOutput<typeof arrangementSchema>;
