import Joi from 'joi';
import {
  verdicts,
  type Component,
  type Content,
  type Credit,
  type Found,
  type NamedValues,
  type Place,
  type Undecided,
} from '../kinds/contract';
import type { EvidenceFound } from '../kinds/evidence';
import type { KeyKinds } from '../kinds/keyKinds';
import { messageSchema } from '../messages/messageSchema';
import { anyText, check, listOf, objectOf, oneOf } from '../validation/shapes';

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

/** Why the machine could not score a part: it threw, gave nonsense, took too long, or had nothing to go by. */
export type ScoringFailure = 'threw' | 'nonsense' | 'took too long' | 'no evidence';

/** A score that breaks the contract of kinds. */
export class NonsenseError extends Error {}

const credit = objectOf<Credit>({
  component: anyText,
  hundredths: Joi.number().integer(),
  of: Joi.number().integer(),
  verdict: oneOf(verdicts),
  reasons: listOf(messageSchema),
});
const undecided = objectOf<Undecided>({ component: anyText, undecided: anyText });
const foundSchema = listOf<Found>(Joi.alternatives<Found>(credit, undecided));

/** One finding for each component of the machine, in their order and within their bounds. */
function checked(components: readonly Component[], found: unknown): Found[] {
  const read = check(foundSchema, found);
  if ('problems' in read) throw new NonsenseError('credits that are none');
  return components
    .filter((component) => component.by === 'machine')
    .map((component, i, all) => {
      const credit = read.value[i];
      if (read.value.length !== all.length || credit?.component !== component.key)
        throw new NonsenseError('credits that are not one for each component');
      if ('undecided' in credit) return credit;
      if (credit.of !== component.of || Math.abs(credit.hundredths) > component.of)
        throw new NonsenseError(`a credit beyond its component ${component.key}`);
      return credit;
    });
}

/**
 * The figures of the parts that an answer builds on, each found with those that it builds on itself: *accepted* is the
 * same in a chain of parts as in their own scores. Where parts built on each other in a circle, which no paper that is
 * published does, nothing could be built on.
 */
export function valuesFor(
  kinds: KeyKinds,
  own: Answered,
  parts: Readonly<Record<string, Answered>>,
): Readonly<Record<string, NamedValues>> {
  const known = new Map<string, NamedValues>();
  const valuesOf = (letter: string): NamedValues => {
    const part = parts[letter];
    if (!part || known.has(letter)) return known.get(letter) ?? {};
    known.set(letter, {});
    const { kind, content, response, place } = part;
    try {
      known.set(letter, kinds[kind]!.values({ content, response, place, siblings: builtOn(part) }));
    } catch {
      // A sibling that cannot be read has no figures; that is no fault of this part.
    }
    return known.get(letter)!;
  };
  const builtOn = ({ kind, content }: Answered) =>
    Object.fromEntries(kinds[kind]!.buildsOn(content).map((letter) => [letter, valuesOf(letter)]));
  return builtOn(own);
}

/**
 * What the machine finds of each component of a part that was answered. Throws what its kind throws, and NonsenseError.
 */
export function scorePart(kinds: KeyKinds, part: PartToScore): Found[] {
  const kind = kinds[part.kind]!;
  const siblings = valuesFor(kinds, part, part.siblings);
  const { content, response, arrangement, place, evidence } = part;
  const found = kind.score({ content, response, arrangement, place, siblings, evidence });
  return checked(kind.components(content, place.marks), found);
}
