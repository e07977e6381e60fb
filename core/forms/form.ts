import * as v from 'valibot';
import { isKindName } from '../kinds/kindNames';
import type { CandidatePaper } from '../papers/candidatePaper';

/**
 * The form of a sitting: which item versions in which order, and how each part is arranged, as the candidate sees them.
 * It is drawn once from a seed and then stored; scoring, marking and results read the stored one.
 */
export interface Form {
  readonly kind: 'form';
  readonly version: 1;
  readonly paper: CandidatePaper;
  /** How each part is arranged, by target; its kind reads it. */
  readonly arrangements: Readonly<Record<string, unknown>>;
}

const formSchema = v.object({
  kind: v.literal('form'),
  version: v.literal(1),
  arrangements: v.record(v.string(), v.unknown()),
  paper: v.looseObject({
    questions: v.array(
      v.looseObject({
        item: v.string(),
        parts: v.array(
          v.looseObject({ target: v.string(), kind: v.custom(isKindName, 'unknown kind of part') }),
        ),
      }),
    ),
  }),
});

/** Reads a stored form. Throws where it is of a version or has a kind of part that this code does not know. */
export function parseForm(stored: unknown): Form {
  const parsed = v.safeParse(formSchema, stored);
  if (!parsed.success) throw new Error(`a stored form cannot be read: ${v.summarize(parsed.issues)}`);
  return parsed.output as unknown as Form;
}
