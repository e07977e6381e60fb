import { sumMarks } from '../marks';
import type { Content, Credit, KeyKind, Place } from '../kinds/contract';
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

/** The credits of one part on its own, arranged by one seed. */
export function creditsOf<Asked, Key, Shown, Response, Arrangement>(
  kind: KeyKind<Asked, Key, Shown, Response, Arrangement>,
  { content, response, marks, locale, evidence = {} }: Alone<Asked, Key, Response>,
): readonly Credit[] {
  const arrangement = kind.arrange(content, seededRandom('alone'));
  const place = placeFor(marks, locale);
  return kind.score({ content, response, arrangement, place, siblings: {}, evidence });
}

/** The hundredths of one part on its own. */
export const hundredthsOf = <Asked, Key, Shown, Response, Arrangement>(
  kind: KeyKind<Asked, Key, Shown, Response, Arrangement>,
  alone: Alone<Asked, Key, Response>,
): number => sumMarks(creditsOf(kind, alone).map((credit) => credit.hundredths));
