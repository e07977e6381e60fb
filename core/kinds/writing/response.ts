import * as v from 'valibot';
import { isBounded, richNodeSchema } from '../shared/richText';

export interface WritingShown {
  readonly format: 'plain' | 'rich';
  readonly wordsFrom: number | null;
  readonly wordsTo: number | null;
  readonly limit: 'soft' | 'hard';
  /** Candidates read by what their writing is judged, and what each is worth; not the levels or the scheme. */
  readonly criteria: readonly { readonly title: string; readonly hundredths: number }[];
}

export const responseSchema = v.strictObject({
  text: v.pipe(
    v.unknown(),
    v.check(isBounded, 'larger than anything a person writes'),
    richNodeSchema,
    v.check((doc) => doc.type === 'doc', 'not a document'),
  ),
});
export type WritingResponse = v.InferOutput<typeof responseSchema>;
