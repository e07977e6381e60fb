import type { Document } from '../documents/document';
import { candidateKindOf } from '../kinds/candidateKindOf';
import type { KindName } from '../kinds/kindNames';
import type { Component } from '../kinds/contract';
import { sumMarks, type Hundredths } from '../marks';
import { message, type Message } from '../messages/message';
import type { ShownPart, Question } from '../papers/candidatePaper';
import type { FullPaper } from '../papers/paper';
import { partsOfScript, type Script, type ScriptPart } from '../scoring/script';
import { markedComponents, type ComponentMark } from './componentMark';
import { floored } from './totals';

export interface ResultComponent {
  readonly key: string;
  /** Null where the part is judged as a whole. */
  readonly name: Message | null;
  readonly hundredths: Hundredths;
  readonly of: Hundredths;
  readonly verdict: ComponentMark['verdict'];
  readonly reasons: readonly Message[];
  /** The level that people gave, in the author's words. */
  readonly level: { readonly label: string; readonly says: string } | null;
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
  readonly comments: readonly string[];
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
  /** In which the dates of the sheet are told (IANA name). */
  readonly timeZone: string;
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
  /** What the newest receipt covers, in the stored form. */
  readonly script: Script;
  readonly marks: readonly ComponentMark[];
  /** What is said of parts as a whole, by target. */
  readonly remarks?: Readonly<Record<string, readonly Message[]>>;
  /** Items whose right answers are kept back, because others may still be asked them. */
  readonly withheld: ReadonlySet<string>;
  readonly candidate: ResultSheet['candidate'];
  readonly satAt: number;
  readonly releasedAt: number;
  readonly timeZone: string;
  readonly receipt: string;
}

function resultComponent(
  { name, of, key, criterion }: Component,
  marks: readonly ComponentMark[],
): ResultComponent {
  const mark = marks.find((m) => m.component === key);
  if (!mark) throw new Error(`no mark for component ${key}: the sheet is not ready`);
  const level = mark.level === null ? null : (criterion?.levels?.[mark.level] ?? null);
  return {
    key,
    name,
    of,
    hundredths: mark.hundredths,
    verdict: mark.verdict,
    reasons: mark.reasons,
    level: level && { label: level.label, says: level.says },
  };
}

function verdictOf(components: readonly ResultComponent[], of: Hundredths): ResultPart['verdict'] {
  const verdicts = new Set(components.map((c) => c.verdict));
  const [only] = verdicts;
  if (verdicts.size === 1 && only) return only;
  const total = sumMarks(components.map((c) => c.hundredths));
  return total >= of ? 'right' : total > 0 ? 'partly' : 'wrong';
}

function resultPart(part: ShownPart, own: ScriptPart, input: ResultInput): ResultPart {
  const marks = input.marks.filter((m) => m.target === part.target);
  const components = markedComponents(own.components, marks).map((c) => resultComponent(c, marks));
  const verdict = verdictOf(components, part.marks);
  const { content } = own.part;
  const wanted = input.script.paper.showRightAnswers && verdict !== 'right';
  const [item = ''] = part.target.split('/');
  const withheld = wanted && input.withheld.has(item);
  return {
    key: part.key,
    kind: part.kind,
    prompt: part.prompt,
    shown: part.shown,
    response: own.response,
    hundredths: sumMarks(components.map((c) => c.hundredths)),
    of: part.marks,
    verdict,
    components,
    remarks: [...(input.remarks?.[part.target] ?? []), ...(withheld ? [message('sheet.rightLater')] : [])],
    right: wanted && !withheld ? own.kind.rightResponse(content, own.arrangement, own.place) : null,
    comments: marks.map((m) => m.comment).filter((comment) => comment !== ''),
  };
}

/** An answer as plain text, as the sheet shows it. */
export const answerOnSheet = (part: ResultPart, response: unknown, say: (m: Message) => string) => {
  const kind = candidateKindOf(part.kind);
  return kind.inFull?.(part.shown, response, say) ?? kind.describe(part.shown, response, say);
};

function bandOf(paper: FullPaper, total: Hundredths): ResultSheet['band'] {
  const bands = [...paper.bands].sort((a, b) => a.from - b.from);
  const index = bands.findLastIndex((band) => total >= band.from);
  const band = bands[index];
  return band ? { title: band.title, from: band.from, next: bands[index + 1]?.from ?? null } : null;
}

/** The one sheet with everything a candidate is told. Throws when a component has no mark yet. */
export function buildResultSheet(input: ResultInput): ResultSheet {
  const { paper, form } = input.script;
  const copy = form.paper;
  const own = new Map(partsOfScript(input.script).map((part) => [part.target, part]));
  const questions = copy.questions.map((question: Question): ResultQuestion => {
    const parts = question.parts.map((part) => resultPart(part, own.get(part.target)!, input));
    const hundredths = sumMarks(parts.map((p) => p.hundredths));
    return { number: question.number, title: question.title, hundredths, of: question.marks, parts };
  });
  const sections = copy.sections.map(({ key, title }) => {
    const inside = questions.filter((_, i) => copy.questions[i]!.section === key);
    const hundredths = floored(inside.map((q) => q.hundredths));
    return { key, title, hundredths, of: sumMarks(inside.map((q) => q.of)) };
  });
  const hundredths = sumMarks(sections.map((s) => s.hundredths));
  const { state, candidate, satAt, releasedAt, timeZone, receipt } = input;
  return {
    state,
    title: paper.title,
    candidate,
    satAt,
    releasedAt,
    timeZone,
    receipt,
    hundredths,
    of: copy.marks,
    band: bandOf(paper, hundredths),
    sections,
    questions,
  };
}
