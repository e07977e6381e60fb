import { message, type Message } from '../messages/message';
import type { Page } from '../files/pages';
import { candidateKindOf, type AnyCandidateKind } from './candidateKindOf';
import type { KindName } from './kindNames';

/** A response as the journal holds it: with the version of its kind's responses, so that any later code can read it. */
export interface StoredResponse {
  readonly version: number;
  readonly response: unknown;
}

/** An answer as the server keeps it: what the candidate's device wrote, if anything, and what joined phones sent. */
export interface StoredAnswer extends Partial<StoredResponse> {
  readonly pages?: readonly Page[];
}

export const storeResponse = (kind: KindName, response: unknown): StoredResponse => ({
  version: candidateKindOf(kind).responseVersion,
  response,
});

export type Read = { readonly response: unknown } | { readonly problem: Message };

const isStored = (stored: unknown): stored is StoredResponse =>
  typeof stored === 'object' &&
  stored !== null &&
  Object.keys(stored).every((name) => name === 'version' || name === 'response') &&
  Number.isInteger((stored as Partial<StoredResponse>).version) &&
  (stored as StoredResponse).version >= 1;

/**
 * The response in a stored one, brought up to the present version; a newer one is refused, never guessed at. Its shape is
 * not looked at: what a device sends is checked by the server before it is kept (`readResponse`).
 */
export function openStored(kind: AnyCandidateKind, stored: unknown): Read {
  if (!isStored(stored)) return { problem: message('stored.noResponse') };
  const { version, response } = stored;
  if (version > kind.responseVersion) return { problem: message('stored.newerResponse', { version }) };
  try {
    return { response: version < kind.responseVersion ? kind.upgradeResponse(response, version) : response };
  } catch {
    // Not what the upgrade expects.
    return { problem: message('stored.noResponse') };
  }
}

type ReadAnswer = (name: KindName, shown: unknown, stored: unknown) => unknown;

/** Reads answers by a way to open what is stored. Answers read before are kept: a screen asks for them at every drawing. */
export function answersOpenedBy(open: (name: KindName, stored: unknown) => Read): ReadAnswer {
  const known = new WeakMap<object, unknown>();
  return (name, shown, stored) => {
    const kind = candidateKindOf(name);
    if (typeof stored !== 'object' || stored === null) return kind.empty(shown);
    if (known.has(stored)) return known.get(stored);
    const { pages, ...own } = stored as StoredAnswer;
    const read = open(name, own);
    const written = 'response' in read ? kind.fitting(shown, read.response) : kind.empty(shown);
    const response = pages && kind.takePages ? kind.takePages(written, pages) : written;
    known.set(stored, response);
    return response;
  };
}

/**
 * The response of a part, without what cannot belong here; the empty one where there is none or it cannot be read.
 * What breaks a limit of the page costs itself alone, not the rest of the answer. For what was checked before it was kept.
 */
export const responseOrEmpty = answersOpenedBy((name, stored) => openStored(candidateKindOf(name), stored));
