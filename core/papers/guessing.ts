import { candidateKindOf } from '../kinds/candidateKindOf';
import { guessings, type Guessing } from '../kinds/contract';
import type { Question } from './candidatePaper';

/** What a guess can cost at the worst in these questions: nothing, marks within a question, or marks of others. */
export function guessingOf(questions: readonly Pick<Question, 'parts'>[]): Guessing {
  const found = questions.flatMap(({ parts }) =>
    parts.map(({ kind, shown }) => candidateKindOf(kind).guessing(shown)),
  );
  return guessings.findLast((one) => found.includes(one)) ?? 'free';
}
