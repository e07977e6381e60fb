import { sumMarks } from '../marks';
import {
  isDecided,
  type Content,
  type Credit,
  type Found,
  type KeyKind,
  type Place,
} from '../kinds/contract';
import type { EvidenceFound } from '../kinds/evidence';
import { seededRandom } from '../random';

interface Alone<Asked, Key, Response> {
  readonly content: Content<Asked, Key>;
  readonly response: Response;
  readonly marks: number;
  readonly locale?: string;
  readonly evidence?: Readonly<Record<string, EvidenceFound>>;
}

export const placeFor = (marks: number, locale = 'en'): Place => ({ locale, marks, source: null });

/** What is found of one part on its own, arranged by one seed. */
export function foundOf<Asked, Key, Shown, Response, Arrangement>(
  kind: KeyKind<Asked, Key, Shown, Response, Arrangement>,
  { content, response, marks, locale, evidence = {} }: Alone<Asked, Key, Response>,
): readonly Found[] {
  const arrangement = kind.arrange(content, seededRandom('alone'));
  const place = placeFor(marks, locale);
  return kind.score({ content, response, arrangement, place, siblings: {}, evidence });
}

/** The credits of one part on its own; what is left to people is not among them. */
export const creditsOf = <Asked, Key, Shown, Response, Arrangement>(
  kind: KeyKind<Asked, Key, Shown, Response, Arrangement>,
  alone: Alone<Asked, Key, Response>,
): readonly Credit[] => foundOf(kind, alone).filter(isDecided);

/** The hundredths of one part on its own. */
export const hundredthsOf = <Asked, Key, Shown, Response, Arrangement>(
  kind: KeyKind<Asked, Key, Shown, Response, Arrangement>,
  alone: Alone<Asked, Key, Response>,
): number => sumMarks(creditsOf(kind, alone).map((credit) => credit.hundredths));
