import type { Document } from '../documents/document';
import type { PageType } from '../files/pages';
import { candidateKindOf } from '../kinds/candidateKindOf';
import type { KindName } from '../kinds/kindNames';
import type { Component, Criterion } from '../kinds/contract';
import { showMarks, sumMarks, type Hundredths } from '../marks';
import { message, type Message } from '../messages/message';
import type { ShownPart, Question } from '../papers/candidatePaper';
import type { WithdrawnRule } from '../papers/ruling';
import { partsOfScript, type Script, type ScriptPart } from '../scoring/script';
import type { SheetShown } from '../rounds/api';
import { inReadingOrder, type MarginNote } from '../marking/marginNote';
import { markedComponents, type ComponentMark } from './componentMark';
import { meanOfMarks, meanRemark } from './attempts';
import { bandOf, type Band } from './bands';
import { floored, totalOf } from './totals';
import type { GivenMark } from '../marking/marksGiven';

/** A level of a rubric, in the author's words. */
export interface SheetLevel {
  readonly label: string;
  readonly says: string;
  readonly hundredths: Hundredths;
}

export interface ResultComponent {
  readonly key: string;
  /** Null where the part is judged as a whole. */
  readonly name: Message | null;
  readonly hundredths: Hundredths;
  readonly of: Hundredths;
  readonly verdict: ComponentMark['verdict'];
  readonly reasons: readonly Message[];
  /** The level that people gave, in the author's words. */
  readonly level: SheetLevel | null;
  /** The level above, where the mark lies between the two; null where it does not. */
  readonly upTo: SheetLevel | null;
  /** Other levels, the lowest first: the next better one where right answers are shown, or all, as the round says. */
  readonly otherLevels: readonly SheetLevel[];
  /** The points of a list, and whether they were found; null where there is none, or nobody has read it yet. */
  readonly points: readonly { readonly says: string; readonly found: boolean }[] | null;
}

/** A margin note with its number in the part; the page shows it in place, the PDF names it there. */
export interface SheetNote extends Pick<MarginNote, 'anchor' | 'text'> {
  readonly number: number;
  /** The criterion that it is about. */
  readonly about: Message | null;
}

export interface ResultPart {
  readonly key: string;
  readonly kind: KindName;
  readonly prompt: Document;
  readonly shown: unknown;
  readonly response: unknown;
  readonly hundredths: Hundredths;
  readonly of: Hundredths;
  readonly verdict: NonNullable<ComponentMark['verdict']>;
  readonly components: readonly ResultComponent[];
  /** What is said of the part as a whole, as of which attempts its mark is the mean. */
  readonly remarks: readonly Message[];
  /** The right answer as a response of its kind, where the paper shows it and it was not given. */
  readonly right: unknown;
  /** In the author's words, where the paper shows right answers; null where there is none. */
  readonly modelAnswer: Document | null;
  /** Why the right answer is right, by the author, where right answers are shown; null where there is none. */
  readonly explanation: Document | null;
  readonly comments: readonly string[];
  readonly notes: readonly SheetNote[];
}

export interface ResultQuestion {
  /** Its key, by which its parts are named. */
  readonly item: string;
  readonly number: number;
  readonly title: string;
  readonly hundredths: Hundredths;
  readonly of: Hundredths;
  readonly parts: readonly ResultPart[];
}

/** One of several attempts, side by side with the others. */
export interface SheetAttempt {
  readonly attempt: number;
  readonly satAt: number;
  readonly hundredths: Hundredths;
  readonly counts: boolean;
}

/** What changed after the result was out: the marks of a question, or the total as something was decided of a question. */
export interface SheetChange {
  readonly at: number;
  readonly question: number;
  readonly about: 'question' | 'total';
  readonly before: Hundredths;
  readonly after: Hundredths;
  readonly reason: Message;
}

/**
 * How far a sheet goes: `sections` while attempts remain, as verdicts would teach the next one; `total` where attempts had
 * different questions and the result is the mean of their totals: each attempt has its own sheet then.
 */
export type SheetDetail = 'whole' | 'sections' | 'total';

export interface ResultSheet {
  readonly detail: SheetDetail;
  /** What is said of the total, as which attempts it is the mean of. */
  readonly remarks: readonly Message[];
  readonly state: 'provisional' | 'confirmed';
  readonly title: string;
  readonly candidate: { readonly name: string; readonly reference: string };
  readonly satAt: number;
  readonly handedInAt: number;
  readonly releasedAt: number;
  /** By when a provisional result is to be final. */
  readonly finalBy: number;
  /** In which the dates of the sheet are told (IANA name). */
  readonly timeZone: string;
  readonly receipt: string;
  readonly hundredths: Hundredths;
  readonly of: Hundredths;
  /** Of these marks nothing can be said yet: people are reading. */
  readonly open: Hundredths;
  /** Right answers would be shown, and are kept back because others may still be asked the questions. */
  readonly rightLater: boolean;
  /** What is said of the script as a whole; null where nothing is. */
  readonly comment: string | null;
  /** A picture or PDF document that goes with the comment; null where there is none. */
  readonly file: SheetFile | null;
  readonly band: {
    readonly title: string;
    readonly from: Hundredths;
    readonly next: Hundredths | null;
  } | null;
  readonly sections: readonly { key: string; title: string; hundredths: Hundredths; of: Hundredths }[];
  readonly questions: readonly ResultQuestion[];
  /** Empty where there was only one. */
  readonly attempts: readonly SheetAttempt[];
  readonly changes: readonly SheetChange[];
}

/** A file by its SHA-256. */
export interface SheetFile {
  readonly hash: string;
  readonly type: PageType;
}

/** What people wrote of a part. */
export interface SheetJudgement {
  readonly comment: string;
  readonly notes: readonly MarginNote[];
  readonly given: readonly GivenMark[];
}

export interface ResultInput {
  readonly state: ResultSheet['state'];
  /** What the newest receipt covers, in the stored form. */
  readonly script: Script;
  readonly detail?: SheetDetail;
  /** What the round does with the marks of a withdrawn part. */
  readonly withdrawn?: WithdrawnRule;
  /** What the total may not fall below. */
  readonly kept?: Hundredths;
  /** The bands of the round; those of the paper without it. Null where they are to be set. */
  readonly bands?: readonly Band[] | null;
  /** The totals of the attempts, where the result is their mean; null where the marks add up to it. */
  readonly meanOf?: readonly Hundredths[] | null;
  readonly marks: readonly ComponentMark[];
  /** What people wrote, by target. */
  readonly judgements?: Readonly<Record<string, readonly SheetJudgement[]>>;
  /** How much of it candidates of the round are shown. */
  readonly shown?: SheetShown;
  readonly attempts?: readonly SheetAttempt[];
  readonly changes?: readonly SheetChange[];
  readonly comment?: string | null;
  readonly file?: SheetFile | null;
  /** What is said of parts as a whole, by target. */
  readonly remarks?: Readonly<Record<string, readonly Message[]>>;
  /** Items whose right answers are kept back, because others may still be asked them. */
  readonly withheld: ReadonlySet<string>;
  readonly candidate: ResultSheet['candidate'];
  readonly satAt: number;
  readonly handedInAt: number;
  readonly finalBy: number;
  readonly releasedAt: number;
  readonly timeZone: string;
  readonly receipt: string;
}

interface JudgedBy {
  readonly state: ResultInput['state'];
  readonly judgements: readonly SheetJudgement[];
  /** Whether right answers are shown. */
  readonly answers: boolean;
  /** Whether all levels of a rubric are shown with them. */
  readonly allLevels: boolean;
}

/** What is told of the levels of a criterion beside a mark: the one reached, or the two it lies between, and others. */
function levelsOf(
  criterion: Criterion | undefined,
  { level, hundredths }: ComponentMark,
  { answers, allLevels }: Pick<JudgedBy, 'answers' | 'allLevels'>,
): Pick<ResultComponent, 'level' | 'upTo' | 'otherLevels'> {
  const levels = criterion?.levels ?? [];
  const sorted = levels
    .map(({ label, says, hundredths: worth }): SheetLevel => ({ label, says, hundredths: worth }))
    .toSorted((a, b) => a.hundredths - b.hundredths);
  const at = level === null ? undefined : levels[level];
  // A mark that is no level lies between two only where such marks can be given: others name none.
  const between = at === undefined && criterion?.step !== undefined;
  const reached = sorted.findLast((one) =>
    at ? one.hundredths === at.hundredths && one.label === at.label : one.hundredths < hundredths,
  );
  const next = sorted.find((one) => one.hundredths > hundredths);
  if (!reached || (!at && !(between && next))) return { level: null, upTo: null, otherLevels: [] };
  const upTo = between ? next! : null;
  const others = allLevels ? sorted.filter((one) => one !== reached && one !== upTo) : [];
  return {
    level: reached,
    upTo,
    otherLevels: !answers ? [] : allLevels ? others : next && !upTo ? [next] : [],
  };
}

function resultComponent(
  { name, of, key, criterion }: Component,
  marks: readonly ComponentMark[],
  { state, judgements, ...told }: JudgedBy,
): ResultComponent {
  const mark = marks.find((m) => m.component === key);
  if (!mark && state === 'confirmed') throw new Error(`no mark for component ${key}: the sheet is not ready`);
  // What people are still reading is told as such, and counts for nothing yet.
  if (!mark)
    return {
      key,
      name,
      of,
      hundredths: 0,
      verdict: 'not marked',
      reasons: [],
      level: null,
      upTo: null,
      otherLevels: [],
      points: null,
    };
  const ticked = judgements
    .at(-1)
    ?.given.find((one) => one.component === key && one.hundredths === mark.hundredths)?.points;
  return {
    key,
    name,
    of: mark.verdict === 'withdrawn' ? 0 : of,
    hundredths: mark.hundredths,
    verdict: mark.verdict,
    reasons: mark.reasons,
    ...levelsOf(criterion, mark, told),
    points:
      criterion?.points && ticked
        ? criterion.points.map(({ says }, i) => ({ says, found: ticked.includes(i) }))
        : null,
  };
}

/** Notes of all who read a part, in the order of the answer, numbered through. */
function notesOf(
  own: ScriptPart,
  components: readonly Component[],
  judgements: readonly SheetJudgement[],
): SheetNote[] {
  const files = candidateKindOf(own.part.kind)
    .files(own.response)
    .map(({ hash }) => hash);
  const all = judgements.flatMap(({ notes }) => notes);
  return inReadingOrder(all, files).map(({ anchor, text, component }, i) => ({
    number: i + 1,
    anchor,
    text,
    about: components.find(({ key }) => key === component)?.name ?? null,
  }));
}

function verdictOf(components: readonly ResultComponent[], of: Hundredths): ResultPart['verdict'] {
  if (components.some((c) => c.verdict === 'not marked')) return 'not marked';
  const verdicts = new Set(components.map((c) => c.verdict));
  const [only] = verdicts;
  if (verdicts.size === 1 && only) return only;
  const total = sumMarks(components.map((c) => c.hundredths));
  return total >= of ? 'right' : total > 0 ? 'partly' : 'wrong';
}

/** When right answers of a part are told: now, once nobody else is asked the question any more, or never. */
function answersTold(
  { target }: Pick<ShownPart, 'target'>,
  { shown = 'key', script, withheld }: ResultInput,
): 'now' | 'later' | 'never' {
  if ((shown !== 'key' && shown !== 'levels') || !script.paper.showRightAnswers) return 'never';
  return withheld.has(target.split('/')[0]!) ? 'later' : 'now';
}

function resultPart(part: ShownPart, own: ScriptPart, input: ResultInput): ResultPart {
  const { state, shown = 'key' } = input;
  const marks = input.marks.filter((m) => m.target === part.target);
  const judgements = input.judgements?.[part.target] ?? [];
  const marked = markedComponents(own.components, marks);
  // Where something was decided of a part, its right answer is not one to learn from.
  const answers = answersTold(part, input) === 'now' && own.part.ruling === undefined;
  const found = marked.map((c) =>
    resultComponent(c, marks, { state, judgements, answers, allLevels: shown === 'levels' }),
  );
  const verdict = verdictOf(found, part.marks);
  const of = verdict === 'withdrawn' ? 0 : part.marks;
  const { content } = own.part;
  const told = shown !== 'marks';
  return {
    key: part.key,
    kind: part.kind,
    prompt: part.prompt,
    shown: part.shown,
    response: own.response,
    hundredths: sumMarks(found.map((c) => c.hundredths)),
    of,
    verdict,
    components: told
      ? found
      : found.map((c) => ({ ...c, reasons: [], level: null, upTo: null, otherLevels: [], points: null })),
    remarks: input.remarks?.[part.target] ?? [],
    right:
      answers && verdict !== 'right' ? own.kind.rightResponse(content, own.arrangement, own.place) : null,
    modelAnswer: answers ? own.kind.modelAnswer(content) : null,
    explanation: answers ? (own.part.explanation ?? null) : null,
    comments: told ? judgements.map((one) => one.comment).filter((comment) => comment !== '') : [],
    notes: told ? notesOf(own, marked, judgements) : [],
  };
}

/** An answer as plain text, as the sheet shows it. */
export const answerOnSheet = (part: ResultPart, response: unknown, say: (m: Message) => string) => {
  const kind = candidateKindOf(part.kind);
  return kind.inFull?.(part.shown, response, say) ?? kind.describe(part.shown, response, say);
};

const scaledRemark = ({ hundredths, of: left }: { hundredths: Hundredths; of: Hundredths }, of: Hundredths) =>
  message('sheet.scaled', { marks: showMarks(hundredths), left: showMarks(left), of: showMarks(of) });

/** The one sheet with everything a candidate is told. Throws when a component has no mark yet. */
export function buildResultSheet(input: ResultInput): ResultSheet {
  const { paper, form } = input.script;
  const copy = form.paper;
  const own = new Map(partsOfScript(input.script).map((part) => [part.target, part]));
  const questions = copy.questions.map((question: Question): ResultQuestion => {
    const parts = question.parts.map((part) => resultPart(part, own.get(part.target)!, input));
    const hundredths = sumMarks(parts.map((p) => p.hundredths));
    const { item, number, title } = question;
    return { item, number, title, hundredths, of: sumMarks(parts.map((p) => p.of)), parts };
  });
  const sections = copy.sections.map(({ key, title }) => {
    const inside = questions.filter((_, i) => copy.questions[i]!.section === key);
    const hundredths = floored(inside.map((q) => q.hundredths));
    return { key, title, hundredths, of: sumMarks(inside.map((q) => q.of)) };
  });
  const { detail = 'whole', meanOf = null, withdrawn = 'scaled', kept = 0 } = input;
  const total = totalOf({ copy, of: copy.marks, withdrawn }, input.marks);
  const found = meanOf ? meanOfMarks(meanOf) : total.hundredths;
  const hundredths = Math.max(found, Math.min(kept, total.of));
  const bands = input.bands === undefined ? paper.bands : input.bands;
  const components = questions.flatMap((q) => q.parts).flatMap((p) => p.components);
  const open = sumMarks(components.filter((c) => c.verdict === 'not marked').map((c) => c.of));
  const { state, candidate, satAt, handedInAt, finalBy, releasedAt, timeZone, receipt } = input;
  const whole = detail === 'whole';
  return {
    detail,
    remarks: [
      ...(meanOf ? [meanRemark(meanOf, 'sheet.meanOfTotals')] : []),
      ...(total.scaledFrom && !meanOf ? [scaledRemark(total.scaledFrom, total.of)] : []),
      ...(hundredths > found ? [message('sheet.kept', { marks: showMarks(found) })] : []),
    ],
    state,
    title: paper.title,
    candidate,
    satAt,
    handedInAt,
    finalBy,
    releasedAt,
    timeZone,
    receipt,
    hundredths,
    of: total.of,
    open,
    // A band can be told only of all marks.
    band: (open > 0 && state === 'provisional') || bands === null ? null : bandOf(bands, hundredths),
    sections: detail === 'total' ? [] : sections,
    questions: whole ? questions : [],
    attempts: input.attempts ?? [],
    changes: input.changes ?? [],
    rightLater:
      whole && copy.questions.some((q) => q.parts.some((part) => answersTold(part, input) === 'later')),
    comment: input.shown === 'marks' || !whole ? null : (input.comment ?? null),
    file: input.shown === 'marks' || !whole ? null : (input.file ?? null),
  };
}
