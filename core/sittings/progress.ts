import { sumMarks, type Hundredths } from '../marks';
import type { Desk } from '../journal/desk';
import { kindOf } from '../kinds/registry';
import type { CandidatePaper, Question, ShownPart } from '../papers/candidatePaper';

/** The states of a question; being flagged is said beside them. */
export type QuestionState = 'unopened' | 'looked at' | 'part done' | 'done';

export interface QuestionProgress {
  readonly question: Question;
  readonly state: QuestionState;
  readonly flagged: boolean;
  /** “Part A: choose 1 more”, for each part that misses something. Empty when done or never opened. */
  readonly missing: readonly string[];
  /** Marks of the parts that are not done. */
  readonly open: Hundredths;
}

export const answerOf = (desk: Desk, part: ShownPart): unknown =>
  desk.answers[part.target] ?? kindOf(part.kind).empty(part.shown);

export const progressOfPart = (desk: Desk, part: ShownPart) =>
  kindOf(part.kind).progress(part.shown, answerOf(desk, part));

const lower = (text: string) => text.replace(/^[A-Z](?=[a-z])/, (c) => c.toLowerCase());

export function progressOfQuestion(desk: Desk, question: Question): QuestionProgress {
  if (question.sealed)
    return { question, state: 'unopened', flagged: false, missing: [], open: question.marks };
  const parts = question.parts.map((part) => ({ part, ...progressOfPart(desk, part) }));
  const open = parts.filter((p) => p.state !== 'done');
  const started = parts.some((p) => p.state !== 'empty');
  const opened = desk.opened[question.item] === true || started;
  const state = open.length === 0 ? 'done' : started ? 'part done' : opened ? 'looked at' : 'unopened';
  const words = (p: (typeof open)[number]) =>
    question.parts.length === 1 ? p.missing : `Part ${p.part.key}: ${lower(p.missing ?? 'is open')}`;
  return {
    question,
    state,
    flagged: desk.flags[question.item] === true,
    missing: state === 'unopened' ? [] : open.map((p) => words(p) ?? ''),
    open: sumMarks(open.map((p) => p.part.marks)),
  };
}

/** Progress after one entry: only the question that it is about is looked at anew, the others stay the same objects. */
export function progressAfter(
  before: readonly QuestionProgress[],
  desk: Desk,
  target: string,
): readonly QuestionProgress[] {
  const [item] = target.split('/');
  return before.map((p) => (p.question.item === item ? progressOfQuestion(desk, p.question) : p));
}

export const progressOfPaper = (desk: Desk, paper: CandidatePaper): QuestionProgress[] =>
  paper.questions.map((question) => progressOfQuestion(desk, question));

/** “Question 9, worth 12 marks, is unopened.” for each question not done: what hand-in leaves open. */
export function namesOfOpen(
  progress: readonly QuestionProgress[],
  showMarks: (m: Hundredths) => string,
): string[] {
  return progress
    .filter((p) => p.state !== 'done')
    .map(({ question, state }) => {
      const worth = `${showMarks(question.marks)} ${question.marks === 100 ? 'mark' : 'marks'}`;
      const tail = state === 'looked at' ? 'is looked at, but not answered' : `is ${state}`;
      return `Question ${question.number}, worth ${worth}, ${tail}.`;
    });
}
