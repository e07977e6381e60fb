import * as v from 'valibot';
import { MOST_PHONE_PAGES, pageSchema } from '../../files/pages';
import { isBounded, richNodeSchema } from '../shared/richText';

/** The most that can be asked for. More can be given (a joined phone and the desk add pages at once): nothing is lost. */
export const MOST_PAGES = 20;
/** The desk adds none beyond this; with what phones may send besides (`MOST_PHONE_PAGES`) an answer can still be kept. */
export const MOST_DESK_PAGES = 2 * MOST_PAGES;

export interface UploadShown {
  readonly pagesFrom: number;
  readonly pagesTo: number;
  readonly text: boolean;
  readonly criteria: readonly { readonly title: string; readonly hundredths: number }[];
}

export const responseSchema = v.strictObject({
  pages: v.pipe(v.array(pageSchema), v.maxLength(MOST_DESK_PAGES + MOST_PHONE_PAGES)),
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
