import * as v from 'valibot';
import { decimalText, type Axis } from '../shared/axis';

export const SORTS = ['point', 'interval', 'ray'] as const;

export interface NumberLineShown {
  readonly axis: Axis;
  /** What can be set: points, intervals with two ends, rays that go on beyond the line. */
  readonly sorts: readonly (typeof SORTS)[number][];
  /** The most points, intervals and rays together. */
  readonly most: number;
  readonly locale: string;
}

/** What is marked on the line: a point has both ends at one place; null is an end that goes on for ever. */
const piece = v.strictObject({
  from: v.nullable(decimalText),
  to: v.nullable(decimalText),
  fromOpen: v.boolean(),
  toOpen: v.boolean(),
});
export type Piece = Readonly<v.InferOutput<typeof piece>>;

export const responseSchema = v.strictObject({ pieces: v.pipe(v.array(piece), v.maxLength(12)) });
export type NumberLineResponse = v.InferOutput<typeof responseSchema>;

export const sortOf = ({ from, to }: Piece): (typeof SORTS)[number] =>
  from === null || to === null ? 'ray' : from === to ? 'point' : 'interval';
