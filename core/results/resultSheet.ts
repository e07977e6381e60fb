import type { Desk } from '../journal/desk';
import type { Place, Score } from '../kinds/contract';
import { kindOf, type KindName } from '../kinds/registry';
import { sumMarks, type Hundredths } from '../marks';
import type { CandidatePaper, Question, ShownPart } from '../papers/candidatePaper';
import { allParts, type FullPaper } from '../papers/paper';
import type { LevelsChosen } from '../marking/rubricMark';

/** The newest mark of a part: by the machine with its reasons, or by people with levels and a comment. */
export interface PartMark {
  readonly target: string;
  readonly hundredths: Hundredths;
  readonly verdict: ResultPart['verdict'] | null;
  readonly reasons: readonly string[];
  readonly levels: LevelsChosen | null;
  readonly comment: string;
}

export interface ResultCriterion {
  readonly title: string;
  readonly label: string;
  readonly says: string;
  readonly hundredths: Hundredths;
  readonly of: Hundredths;
}

export interface ResultPart {
  readonly key: string;
  readonly kind: KindName;
  readonly prompt: string;
  readonly shown: unknown;
  readonly response: unknown;
  readonly answerText: string;
  readonly hundredths: Hundredths;
  readonly of: Hundredths;
  /** `not marked`: in a rehearsal, where people would mark. */
  readonly verdict: Score['verdict'] | 'not marked';
  readonly reasons: readonly string[];
  readonly rightAnswer: string | null;
  readonly criteria: readonly ResultCriterion[];
  readonly comment: string;
}

export interface ResultQuestion {
  readonly number: number;
  readonly title: string;
  readonly hundredths: Hundredths;
  readonly of: Hundredths;
  readonly parts: readonly ResultPart[];
}

export interface ResultSheet {
  readonly state: 'provisional' | 'confirmed';
  readonly title: string;
  readonly candidate: { readonly name: string; readonly reference: string };
  readonly satAt: number;
  readonly releasedAt: number;
  readonly receipt: string;
  readonly hundredths: Hundredths;
  readonly of: Hundredths;
  readonly band: {
    readonly title: string;
    readonly from: Hundredths;
    readonly next: Hundredths | null;
  } | null;
  readonly sections: readonly { key: string; title: string; hundredths: Hundredths; of: Hundredths }[];
  readonly questions: readonly ResultQuestion[];
}

export interface ResultInput {
  readonly state: ResultSheet['state'];
  readonly paper: FullPaper;
  /** The stored form of the sitting: what the candidate saw. */
  readonly form: CandidatePaper;
  readonly place?: Place;
  readonly answers: Desk['answers'];
  readonly marks: readonly PartMark[];
  readonly candidate: ResultSheet['candidate'];
  readonly satAt: number;
  readonly releasedAt: number;
  readonly receipt: string;
}

function criteriaOf(content: unknown, kind: KindName, levels: LevelsChosen | null): ResultCriterion[] {
  const rubric = kindOf(kind).rubric(content);
  if (!rubric || !levels) return [];
  return rubric.criteria.map((criterion) => {
    const level = criterion.levels[levels[criterion.key] ?? 0]!;
    const of = Math.max(...criterion.levels.map((l) => l.hundredths));
    return { title: criterion.title, label: level.label, says: level.says, hundredths: level.hundredths, of };
  });
}

const verdictOf = (hundredths: Hundredths, of: Hundredths) =>
  hundredths >= of ? 'right' : hundredths > 0 ? 'partly' : 'wrong';

function resultPart(part: ShownPart, content: unknown, input: ResultInput): ResultPart {
  const kind = kindOf(part.kind);
  const mark = input.marks.find((m) => m.target === part.target);
  if (!mark) throw new Error(`no mark for ${part.target}: the sheet is not ready`);
  const response = input.answers[part.target] ?? kind.empty(part.shown);
  const verdict = mark.verdict ?? verdictOf(mark.hundredths, part.marks);
  return {
    key: part.key,
    kind: part.kind,
    prompt: part.prompt,
    shown: part.shown,
    response,
    answerText: kind.asText(part.shown, response),
    hundredths: mark.hundredths,
    of: part.marks,
    verdict,
    reasons: mark.reasons,
    rightAnswer:
      input.paper.showRightAnswers && verdict !== 'right' ? kind.rightAnswer(content, input.place) : null,
    criteria: criteriaOf(content, part.kind, mark.levels),
    comment: mark.comment,
  };
}

function bandOf(paper: FullPaper, total: Hundredths): ResultSheet['band'] {
  const bands = [...paper.bands].sort((a, b) => a.from - b.from);
  const index = bands.findLastIndex((band) => total >= band.from);
  const band = bands[index];
  return band ? { title: band.title, from: band.from, next: bands[index + 1]?.from ?? null } : null;
}

/** The one sheet with everything a candidate is told. Throws when a part has no mark yet. */
export function buildResultSheet(input: ResultInput): ResultSheet {
  const copy = input.form;
  const contents = new Map(allParts(input.paper).map(({ target, part }) => [target, part.content]));
  const result = (question: Question): ResultQuestion => {
    const parts = question.parts.map((part) => resultPart(part, contents.get(part.target), input));
    return {
      number: question.number,
      title: question.title,
      hundredths: sumMarks(parts.map((p) => p.hundredths)),
      of: question.marks,
      parts,
    };
  };
  const questions = copy.questions.map(result);
  const sections = copy.sections.map(({ key, title }) => {
    const own = questions.filter((_, i) => copy.questions[i]!.section === key);
    return {
      key,
      title,
      hundredths: sumMarks(own.map((q) => q.hundredths)),
      of: sumMarks(own.map((q) => q.of)),
    };
  });
  const hundredths = sumMarks(sections.map((s) => s.hundredths));
  const { state, candidate, satAt, releasedAt, receipt } = input;
  const band = bandOf(input.paper, hundredths);
  return {
    state,
    title: input.paper.title,
    candidate,
    satAt,
    releasedAt,
    receipt,
    hundredths,
    of: copy.marks,
    band,
    sections,
    questions,
  };
}
