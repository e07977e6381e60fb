import * as v from 'valibot';
import type { PictureNode } from '../../documents/document';
import { entryKey, type Entry } from '../shared/entries';
import { pointSchema, type Shape } from './shapes';

export interface AreaShown extends Entry {
  readonly shape: Shape;
}

export interface HotAreaShown {
  readonly picture: PictureNode;
  /** `choose`: areas that are outlined; `mark`: marks set anywhere. Names of areas help who does not see the picture. */
  readonly mode: 'choose' | 'mark';
  readonly areas: readonly AreaShown[];
  /** The most areas or marks. */
  readonly limit: number;
}

/** Areas are chosen by key, marks are points; each in its own mode. */
export const responseSchema = v.strictObject({
  chosen: v.pipe(v.array(entryKey), v.maxLength(30)),
  marks: v.pipe(v.array(pointSchema), v.maxLength(30)),
});
export type HotAreaResponse = v.InferOutput<typeof responseSchema>;

export const sizeOf = ({ chosen, marks }: HotAreaResponse): number => chosen.length + marks.length;
