import * as v from 'valibot';
import { pageSchema } from '../../files/pages';
import { isBounded, richNodeSchema } from '../shared/richText';

/** The most that can be asked for. More can be given (a joined phone and the desk add pages at once): nothing is lost. */
export const MOST_PAGES = 20;

export interface UploadShown {
  readonly pagesFrom: number;
  readonly pagesTo: number;
  readonly text: boolean;
  readonly criteria: readonly { readonly title: string; readonly hundredths: number }[];
}

export const responseSchema = v.strictObject({
  pages: v.pipe(v.array(pageSchema), v.maxLength(5 * MOST_PAGES)),
  /** So many pages of joined phones, in the order of their arrival, were taken in; what came since follows the others. */
  joined: v.pipe(v.number(), v.integer(), v.minValue(0)),
  text: v.pipe(
    v.unknown(),
    v.check(isBounded, 'larger than anything a person writes'),
    richNodeSchema,
    v.check((doc) => doc.type === 'doc', 'not a document'),
  ),
});
export type UploadResponse = v.InferOutput<typeof responseSchema>;
