import type { Document } from '../../documents/document';
import type { Entry } from '../shared/entries';

/** A passage of the part's own, or a column or tab of the source, in which phrases are chosen. */
export interface PassageShown {
  readonly key: string;
  readonly title: string;
  /** Null where the passage stands in the source. */
  readonly body: Document | null;
  /** The most that can be chosen here; null for as many as there are. */
  readonly limit: number | null;
  /** What can be chosen, in its order. */
  readonly phrases: readonly Entry[];
}

export interface SelectTextShown {
  readonly passages: readonly PassageShown[];
}

/** The chosen phrases of all passages. */
export interface SelectTextResponse {
  readonly chosen: readonly string[];
}

/** The chosen phrases of one passage, in the order of the text. */
export const chosenOf = (
  { phrases }: { readonly phrases: readonly Entry[] },
  { chosen }: SelectTextResponse,
): Entry[] => phrases.filter(({ key }) => chosen.includes(key));

/**
 * What is chosen after a phrase was pressed: off where it was on; on where there is room; in a passage that takes one
 * alone it takes the other's place. Null where the passage is full.
 */
export function pressed(
  { passages }: SelectTextShown,
  response: SelectTextResponse,
  phrase: string,
): SelectTextResponse | null {
  const { chosen } = response;
  if (chosen.includes(phrase)) return { chosen: chosen.filter((one) => one !== phrase) };
  const passage = passages.find(({ phrases }) => phrases.some(({ key }) => key === phrase));
  if (!passage) return response;
  const here = chosenOf(passage, response).map(({ key }) => key);
  if (passage.limit === null || here.length < passage.limit) return { chosen: [...chosen, phrase] };
  if (passage.limit > 1) return null;
  return { chosen: [...chosen.filter((one) => !here.includes(one)), phrase] };
}
