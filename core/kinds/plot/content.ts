import * as v from 'valibot';
import { axisSchema, decimalText } from '../shared/axis';
import { entryKey, weightedEntrySchema } from '../shared/entries';
import { responseSchema, SORTS } from './response';

const object = v.strictObject({
  ...weightedEntrySchema.entries,
  sort: v.picklist(SORTS),
  count: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(20))),
});

export const askedSchema = v.strictObject({
  x: axisSchema,
  y: axisSchema,
  objects: v.pipe(v.array(object), v.minLength(1), v.maxLength(8)),
});
export type PlotAsked = v.InferOutput<typeof askedSchema>;

export const keySchema = v.strictObject({
  /** As a candidate would draw them. */
  objects: responseSchema.entries.objects,
  /** In grid units; its limit included. */
  tolerance: v.record(entryKey, decimalText),
});
export type PlotKey = v.InferOutput<typeof keySchema>;
