import type { AnsweredPart, AnswerTable, PartFigures } from '../../core/answers/api';
import type { Read } from '../reading/read';
import { partFigures } from './figures';
import { answeredParts, answerTable } from './table';

export const partsRead: Read<{ readonly round: number }, AnsweredPart[]> = {
  name: 'answered-parts',
  run: (reading, { round }) => answeredParts(reading, round),
};

export const answersRead: Read<{ readonly round: number; readonly target: string }, AnswerTable> = {
  name: 'answers',
  run: (reading, { round, target }) => answerTable(reading, round, target),
};

export const figuresRead: Read<{ readonly round: number }, PartFigures[]> = {
  name: 'part-figures',
  run: (reading, { round }) => partFigures(reading, round),
};

export const answersReads = [partsRead, answersRead, figuresRead];
