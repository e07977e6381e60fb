import * as v from 'valibot';
import type { Document } from '../../documents/document';
import type { SeveralRule } from '../shared/severalRight';

export interface OptionShown {
  readonly key: string;
  readonly text: string;
  /** Shown for the words, which are then heard alone. */
  readonly body?: Document | undefined;
}

export interface ChoiceShown {
  readonly options: readonly OptionShown[];
  readonly mode: 'one' | 'several';
  readonly choose: number | null;
  readonly rule: SeveralRule;
  /** Whether a wrong choice of one costs marks. */
  readonly costs: boolean;
}

export const optionKey = v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,20}$/));

export const responseSchema = v.strictObject({ chosen: v.pipe(v.array(optionKey), v.maxLength(12)) });
export type ChoiceResponse = v.InferOutput<typeof responseSchema>;

/** Options that the candidate has struck out as wrong. */
export const strikeSchema = v.pipe(v.array(optionKey), v.maxLength(12));
