import { candidateKindOf } from '../kinds/candidateKindOf';
import type { Question } from './candidatePaper';

/** Questions of a stored copy, with what is shown of each part as its kind has it today. The kinds are here already. */
export const questionsOfToday = (questions: readonly Question[]): Question[] =>
  questions.map((question) => ({
    ...question,
    parts: question.parts.map((part) => ({
      ...part,
      shown: candidateKindOf(part.kind).upgradeShown(part.shown),
    })),
  }));
