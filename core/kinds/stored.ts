import * as v from 'valibot';
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

const storedSchema = v.strictObject({
  version: v.pipe(v.number(), v.integer(), v.minValue(1)),
  response: v.unknown(),
});

export type Read = { readonly response: unknown } | { readonly problem: Message };

/** Reads a stored response of the same or an older version; a newer one is refused, never guessed at. */
export function readResponse(kind: AnyCandidateKind, stored: unknown): Read {
  const envelope = v.safeParse(storedSchema, stored);
  if (!envelope.success) return { problem: message('stored.noResponse') };
  const { version, response } = envelope.output;
  if (version > kind.responseVersion) return { problem: message('stored.newerResponse', { version }) };
  try {
    const upgraded = version < kind.responseVersion ? kind.upgradeResponse(response, version) : response;
    const parsed = v.safeParse(kind.response, upgraded);
    return parsed.success ? { response: parsed.output } : { problem: message('stored.noResponse') };
  } catch {
    // Nested too deeply to be looked through, or not what the upgrade expects.
    return { problem: message('stored.noResponse') };
  }
}

/** Answers read before, by the stored object: a screen asks for them at every drawing. */
const known = new WeakMap<object, unknown>();

/**
 * The response of a part, without what cannot belong here; the empty one where there is none or it cannot be read.
 * What breaks a limit of the page costs itself alone, not the rest of the answer.
 */
export function responseOrEmpty(name: KindName, shown: unknown, stored: unknown): unknown {
  const kind = candidateKindOf(name);
  if (typeof stored !== 'object' || stored === null) return kind.empty(shown);
  if (known.has(stored)) return known.get(stored);
  const { pages, ...own } = stored as StoredAnswer;
  const read = readResponse(kind, own);
  const written = 'response' in read ? kind.fitting(shown, read.response) : kind.empty(shown);
  const response = pages && kind.takePages ? kind.takePages(written, pages) : written;
  known.set(stored, response);
  return response;
}
