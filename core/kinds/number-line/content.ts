import * as v from 'valibot';
import { axisSchema, decimalText } from '../shared/axis';
import { responseSchema, SORTS } from './response';

export const askedSchema = v.strictObject({
  axis: axisSchema,
  sorts: v.pipe(v.array(v.picklist(SORTS)), v.minLength(1)),
  most: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(12)),
});
export type NumberLineAsked = v.InferOutput<typeof askedSchema>;

export const keySchema = v.strictObject({
  pieces: responseSchema.entries.pieces,
  /** By how much an end may be off, in the figures of the line; its limit included. */
  tolerance: decimalText,
});
export type NumberLineKey = v.InferOutput<typeof keySchema>;
