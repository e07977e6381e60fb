import * as v from 'valibot';
import type { Component, Content, Credit, NamedValues, Place } from '../kinds/contract';
import type { EvidenceFound } from '../kinds/evidence';
import type { KeyKinds } from '../kinds/keyKinds';
import { messageSchema } from '../messages/message';

/** A part with what was answered, as plain data: it travels to the worker that scores. */
export interface Answered {
  readonly kind: string;
  readonly content: Content<unknown, unknown>;
  readonly response: unknown;
  readonly place: Place;
}

export interface PartToScore extends Answered {
  readonly target: string;
  readonly arrangement: unknown;
  /** The item's other parts, by letter. */
  readonly siblings: Readonly<Record<string, Answered>>;
  readonly evidence: Readonly<Record<string, EvidenceFound>>;
}

/**
 * Why the machine could not score a part: it threw, gave nonsense, took too long, had nothing to go by, or could not tell
 * for certain.
 */
export type ScoringFailure = 'threw' | 'nonsense' | 'took too long' | 'no evidence' | 'undecided';

/** A score that breaks the contract of kinds. */
export class NonsenseError extends Error {}

const creditsSchema = v.array(
  v.strictObject({
    component: v.string(),
    hundredths: v.pipe(v.number(), v.integer()),
    of: v.pipe(v.number(), v.integer()),
    verdict: v.picklist(['right', 'partly', 'wrong', 'unanswered', 'follow-through']),
    reasons: v.array(messageSchema),
  }),
);

/** One credit for each component of the machine, in their order and within their bounds. */
function checked(components: readonly Component[], found: unknown): Credit[] {
  const parsed = v.safeParse(creditsSchema, found);
  if (!parsed.success) throw new NonsenseError('credits that are none');
  return components
    .filter((component) => component.by === 'machine')
    .map((component, i, all) => {
      const credit = parsed.output[i];
      if (parsed.output.length !== all.length || credit?.component !== component.key)
        throw new NonsenseError('credits that are not one for each component');
      if (credit.of !== component.of || Math.abs(credit.hundredths) > component.of)
        throw new NonsenseError(`a credit beyond its component ${component.key}`);
      return credit;
    });
}

function valuesOf(kinds: KeyKinds, { kind, content, response, place }: Answered): NamedValues {
  try {
    return kinds[kind]!.values(content, response, place);
  } catch {
    // A sibling that cannot be read has no figures; that is no fault of this part.
    return {};
  }
}

/** The machine's credits for a part that was answered. Throws what its kind throws, and NonsenseError. */
export function scorePart(kinds: KeyKinds, part: PartToScore): Credit[] {
  const kind = kinds[part.kind]!;
  const siblings = Object.fromEntries(
    Object.entries(part.siblings).map(([letter, sibling]) => [letter, valuesOf(kinds, sibling)]),
  );
  const { content, response, arrangement, place, evidence } = part;
  const found = kind.score({ content, response, arrangement, place, siblings, evidence });
  return checked(kind.components(content, place.marks), found);
}
