import { sumMarks, type Hundredths } from '../marks';
import type { Desk } from '../journal/desk';
import { candidateKindOf } from '../kinds/candidateKindOf';
import { responseOrEmpty } from '../kinds/stored';
import { message, type Message } from '../messages/message';
import type { CandidatePaper, Question, ShownPart } from '../papers/candidatePaper';

/** The states of a question; being flagged is said beside them. */
export type QuestionState = 'unopened' | 'looked at' | 'part done' | 'done';

export interface QuestionProgress {
  readonly question: Question;
  readonly state: QuestionState;
  readonly flagged: boolean;
  /** For each part that misses something, its letter (null where the question has one part) and what it is. */
  readonly missing: readonly { readonly part: string | null; readonly what: Message }[];
  /** Marks of the parts that are not done. */
  readonly open: Hundredths;
}

/** How far a part is with the response that is stored for it, or none. */
export const progressOfResponse = (part: ShownPart, stored: unknown) =>
  candidateKindOf(part.kind).progress(part.shown, responseOrEmpty(part.kind, part.shown, stored));

const progressOfPart = (desk: Desk, part: ShownPart) => progressOfResponse(part, desk.answers[part.target]);

export function progressOfQuestion(desk: Desk, question: Question): QuestionProgress {
  if (question.sealed)
    return { question, state: 'unopened', flagged: false, missing: [], open: question.marks };
  const parts = question.parts.map((part) => ({ part, ...progressOfPart(desk, part) }));
  const open = parts.filter((p) => p.state !== 'done');
  const started = parts.some((p) => p.state !== 'empty');
  const opened = desk.opened[question.item] === true || started;
  const state = open.length === 0 ? 'done' : started ? 'part done' : opened ? 'looked at' : 'unopened';
  const several = question.parts.length > 1;
  const missing = open.map(({ part, missing: what }) => ({
    part: several ? part.key : null,
    what: what ?? message('progress.open'),
  }));
  return {
    question,
    state,
    flagged: desk.flags[question.item] === true,
    missing: state === 'unopened' ? [] : missing,
    open: sumMarks(open.map((p) => p.part.marks)),
  };
}

/** Progress after one entry: only the question that it is about is computed again, the others stay the same objects. */
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

/** The questions that hand-in would leave open. */
export const openQuestions = (progress: readonly QuestionProgress[]): readonly QuestionProgress[] =>
  progress.filter((p) => p.state !== 'done');

/**
 * Questions of sections that demand an answer to every question, of which a part is not answered at all: the candidate
 * hands in once they are answered. The end of the time waits for none of them.
 */
export function stillDemanded(
  { sections, questions }: Pick<CandidatePaper, 'sections' | 'questions'>,
  desk: Desk,
): Question[] {
  const demanding = sections.filter(({ navigation }) => navigation === 'free, all answered');
  const isOpen = ({ sealed, parts }: Question) =>
    sealed === true || parts.some((part) => progressOfPart(desk, part).state === 'empty');
  return questions.filter(
    (question) => demanding.some(({ key }) => key === question.section) && isOpen(question),
  );
}
