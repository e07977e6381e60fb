import { wholeForm } from '../forms/drawForm';
import type { Component } from '../kinds/contract';
import { showMarks, sumMarks, type Hundredths } from '../marks';
import { message, type Message } from '../messages/message';
import { allParts, marksOfPaper, type FullPaper } from '../papers/paper';
import type { Ruling, WithdrawnRule } from '../papers/ruling';
import type { AttemptRule } from '../rounds/api';
import { componentsOf } from '../scoring/components';
import { isFullyMarked, type ComponentMark } from './componentMark';
import { totalOf, type Counting } from './totals';

export interface Attempt {
  readonly attempt: number;
  readonly marks: readonly ComponentMark[];
  readonly total: Hundredths;
}

/**
 * Of several attempts those that the result is made of, by the round's rule, in the order in which they were made: one,
 * or all of them for `mean`. Of equally good ones the later counts. Empty where there was none.
 */
export function countedAttempts<A extends Attempt>(attempts: readonly A[], rule: AttemptRule): A[] {
  const inOrder = [...attempts].sort((a, b) => a.attempt - b.attempt);
  const counted: Record<AttemptRule, () => A[]> = {
    first: () => inOrder.slice(0, 1),
    latest: () => inOrder.slice(-1),
    mean: () => inOrder,
    best: () => {
      const best = Math.max(...inOrder.map((a) => a.total));
      return inOrder.filter((a) => a.total === best).slice(-1);
    },
  };
  return counted[rule]();
}

export interface CountedMarks {
  readonly marks: readonly ComponentMark[];
  /** Of which attempts a part's mark is the mean, by target. */
  readonly remarks: Readonly<Record<string, readonly Message[]>>;
  /** Where the result is the mean of the attempts' totals: what it is the mean of. Null where the marks add up to it. */
  readonly meanOf: readonly Hundredths[] | null;
}

/** What is known of a paper when results are worked out. */
export interface MarkedPaper extends Counting {
  readonly components: ReadonlyMap<string, readonly Component[]>;
  /** What was decided of parts since they were published, by target. */
  readonly rulings: ReadonlyMap<string, Ruling>;
  /** Whether a part of which something was decided is drawn: not every form has it. */
  readonly rulesDrawn: boolean;
  /** Whether the forms of two attempts may have different questions. */
  readonly draws: boolean;
}

const known = new WeakMap<FullPaper, Map<WithdrawnRule, MarkedPaper>>();

const drawnItems = (paper: FullPaper): ReadonlySet<string> =>
  new Set(
    paper.sections.flatMap(({ items }) => items.filter(({ draw }) => draw !== null).map(({ key }) => key)),
  );

function made(paper: FullPaper, rule: WithdrawnRule): MarkedPaper {
  const ruled = allParts(paper).flatMap(({ target, item, part }) =>
    part.ruling === undefined ? [] : [{ target, item: item.key, ruling: part.ruling }],
  );
  const drawn = drawnItems(paper);
  const rulesDrawn = ruled.some(({ item }) => drawn.has(item));
  return {
    copy: wholeForm(paper).paper,
    components: componentsOf(paper),
    of: marksOfPaper(paper),
    rulings: new Map(ruled.map(({ target, ruling }) => [target, ruling])),
    rulesDrawn,
    // Where not everybody was asked it, a lower maximum would not be the same for all.
    withdrawn: rulesDrawn ? 'scaled' : rule,
    draws: paper.sections.some((section) => section.draws.length > 0),
  };
}

/** Worked out once a paper: every list of results asks for it, and every page of a candidate who has handed in. */
export function markedPaper(paper: FullPaper, rule: WithdrawnRule): MarkedPaper {
  const own = known.get(paper) ?? new Map<WithdrawnRule, MarkedPaper>();
  known.set(paper, own);
  const found = own.get(rule) ?? made(paper, rule);
  own.set(rule, found);
  return found;
}

/** What everybody's result is out of, where that is the same for all: always, but for what is withdrawn of a draw. */
export const maximumOf = ({ copy, of, rulings, withdrawn }: MarkedPaper): Hundredths =>
  withdrawn === 'scaled'
    ? of
    : of -
      sumMarks(
        copy.questions
          .flatMap((question) => question.parts)
          .filter(({ target }) => rulings.get(target) === 'withdrawn')
          .map((part) => part.marks),
      );

const marksOn = ({ marks }: Attempt, target: string) => marks.filter((m) => m.target === target);

/** What a mean of marks is the mean of. */
export const meanRemark = (each: readonly Hundredths[], code = 'sheet.meanOf'): Message =>
  message(code, { count: each.length, marks: each.map(showMarks).join(', ') });

/**
 * The mean of a part's marks in several attempts, rounded half up to a hundredth once a part, and spread over the latest
 * attempt's components by what each is worth: verdicts and levels of one attempt would not be those of the mean.
 */
function meanMarks(counted: readonly Attempt[], target: string): [ComponentMark[], Message] {
  const each = counted.map((attempt) => sumMarks(marksOn(attempt, target).map((m) => m.hundredths)));
  const mean = meanOfMarks(each);
  const latest = marksOn(counted.at(-1)!, target);
  const means = latest.map(({ component }) => {
    const own = counted.flatMap((a) => marksOn(a, target).filter((m) => m.component === component));
    return Math.floor(sumMarks(own.map((m) => m.hundredths)) / each.length);
  });
  // What rounding down has left goes to the first components, a hundredth each.
  let left = mean - sumMarks(means);
  const marks = latest.map((mark, i) => {
    const more = left > 0 ? 1 : 0;
    left -= more;
    const verdict = isDecided(mark, counted) ? mark.verdict : null;
    return { ...mark, hundredths: means[i]! + more, verdict, level: null };
  });
  return [marks, meanRemark(each)];
}

/** Was the same decided of its part in every attempt, whatever was answered? */
const isDecided = ({ target, verdict }: ComponentMark, counted: readonly Attempt[]): boolean =>
  (verdict === 'withdrawn' || verdict === 'given') &&
  counted.every((attempt) => marksOn(attempt, target).every((mark) => mark.verdict === verdict));

/** The mean, rounded half up to a hundredth. */
export const meanOfMarks = (each: readonly Hundredths[]): Hundredths =>
  Math.floor(sumMarks(each) / each.length + 0.5);

/**
 * The marks a result is made of: those of the attempt that counts, or the mean of all that count. The mean is taken part
 * by part, so that what the sheet shows adds up; where the attempts had different questions it is taken of their totals.
 */
export function marksOfCounted(
  counted: readonly Attempt[],
  { draws }: Pick<MarkedPaper, 'draws'>,
): CountedMarks {
  const newest = counted.at(-1)?.marks ?? [];
  if (counted.length <= 1) return { marks: newest, remarks: {}, meanOf: null };
  if (draws) return { marks: newest, remarks: {}, meanOf: counted.map((attempt) => attempt.total) };
  const targets = [...new Set(counted[0]!.marks.map((m) => m.target))];
  const means = targets.map((target) => [target, meanMarks(counted, target)] as const);
  return {
    marks: means.flatMap(([, [marks]]) => marks),
    remarks: Object.fromEntries(means.map(([target, [, remark]]) => [target, [remark]])),
    meanOf: null,
  };
}

/**
 * The total of a result, of what is marked so far. `kept` is what it may not fall below: a released result does not fall by
 * a correction, where the round says so.
 */
export function totalOfCounted(
  counted: readonly Attempt[],
  paper: MarkedPaper,
  kept: Hundredths = 0,
): Hundredths {
  const { marks, meanOf } = marksOfCounted(counted, paper);
  const { hundredths, of } = totalOf(paper, marks);
  return Math.max(meanOf ? meanOfMarks(meanOf) : hundredths, Math.min(kept, of));
}

/** Is everything marked that the result is made of? Not where nothing counts. */
export const isComplete = (counted: readonly Attempt[], { components, of }: MarkedPaper): boolean =>
  counted.length > 0 && counted.every(({ marks }) => isFullyMarked(components, marks, of));
