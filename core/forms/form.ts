import * as v from 'valibot';
import type { Place } from '../kinds/contract';
import { isKindName } from '../kinds/registry';
import { buildCandidatePaper, type CandidatePaper } from '../papers/candidatePaper';
import type { FullPaper } from '../papers/paper';

/**
 * The form of a sitting: which item versions in which order, and how each part is arranged, as the candidate sees them.
 * It is drawn once from a seed and then stored; scoring, marking and results read the stored one.
 */
export interface Form {
  readonly kind: 'form';
  readonly version: 1;
  readonly paper: CandidatePaper;
}

/** Draws a form. The same seed gives the same form only as long as the code stays the same: that is why it is stored. */
export const drawForm = (paper: FullPaper, seed: string, place: Place): Form => ({
  ...{ kind: 'form', version: 1, paper: buildCandidatePaper(paper, seed, place) },
});

const formSchema = v.object({
  kind: v.literal('form'),
  version: v.literal(1),
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
