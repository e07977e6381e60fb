import type { AnsweredPart, AnswerTable } from '../../core/answers/api';
import type { Read } from '../reading/read';
import { answeredParts, answerTable } from './operations';

export const partsRead: Read<{ readonly round: number }, AnsweredPart[]> = {
  name: 'answered-parts',
  run: (reading, { round }) => answeredParts(reading, round),
};

export const answersRead: Read<{ readonly round: number; readonly target: string }, AnswerTable> = {
  name: 'answers',
  run: (reading, { round, target }) => answerTable(reading, round, target),
};

export const answersReads = [partsRead, answersRead];
