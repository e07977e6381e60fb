import * as v from 'valibot';
import { richNodeSchema, isTooDeep } from '../shared/richText';

const hundredths = v.pipe(v.number(), v.integer(), v.minValue(0));

export const rubricSchema = v.strictObject({
  /** What assessors are told: the mark scheme in words. */
  scheme: v.string(),
  criteria: v.pipe(
    v.array(
      v.strictObject({
        key: v.pipe(v.string(), v.regex(/^[a-z]$/)),
        title: v.string(),
        levels: v.pipe(
          v.array(v.strictObject({ hundredths, label: v.string(), says: v.string() })),
          v.minLength(2),
          v.maxLength(9),
        ),
      }),
    ),
    v.minLength(1),
    v.maxLength(8),
  ),
});

export const contentSchema = v.strictObject({
  format: v.picklist(['plain', 'rich']),
  wordsFrom: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(0))),
  wordsTo: v.nullable(v.pipe(v.number(), v.integer(), v.minValue(1))),
  rubric: rubricSchema,
});
export type WritingContent = v.InferOutput<typeof contentSchema>;

export interface WritingShown {
  readonly format: 'plain' | 'rich';
  readonly wordsFrom: number | null;
  readonly wordsTo: number | null;
  /** Candidates read by what their writing is judged, and what each is worth; not the levels or the scheme. */
  readonly criteria: readonly { readonly title: string; readonly hundredths: number }[];
}

export const responseSchema = v.strictObject({
  text: v.pipe(
    richNodeSchema,
    v.check((doc) => doc.type === 'doc' && !isTooDeep(doc), 'not a document'),
  ),
});
export type WritingResponse = v.InferOutput<typeof responseSchema>;
