import type { Desk } from '../journal/desk';
import { closedItems, type ForwardSections } from '../journal/forwardOnly';
import type { CandidatePaper } from '../papers/candidatePaper';
import type { QuestionProgress } from './progress';

/**
 * What going to a question comes to: `go` at once; `enter`, `leave` or `pass`, after the candidate has been told what they
 * cannot come back to; not at all, since it is `closed`, its turn is `not yet`, or the one in view has to be answered
 * first.
 */
export type Way = 'go' | 'enter' | 'leave' | 'pass' | 'closed' | 'not yet' | 'answer first';

export interface AtDesk {
  readonly paper: CandidatePaper;
  readonly turns: ForwardSections | null;
  readonly desk: Desk;
  readonly progress: readonly QuestionProgress[];
}

/** The way from where the candidate is to a question, by its index. */
export function wayTo({ paper, turns, desk, progress }: AtDesk, index: number): Way {
  const item = paper.questions[index]?.item;
  if (item === undefined) return 'not yet';
  if (!turns || item === desk.place) return 'go';
  if (closedItems(turns, desk).includes(item)) return 'closed';
  const to = turns.get(item);
  const from = desk.place === null ? undefined : turns.get(desk.place);
  if (to === undefined && from === undefined) return 'go';
  if (to !== from) {
    // A section is entered by its first question.
    if (to && to.items[0] !== item) return 'not yet';
    if (from) return 'leave';
    // At the very start there is nothing to come back to.
    return desk.place === null ? 'go' : 'enter';
  }
  const at = from!.items.indexOf(desk.place!);
  if (to!.items.indexOf(item) !== at + 1) return 'not yet';
  const done = progress.find((one) => one.question.item === desk.place)?.state === 'done';
  if (done) return 'go';
  return from!.onceAnswered ? 'answer first' : 'pass';
}

/** What of a section is not done, and whether one can come back to it. */
export interface SectionLeft {
  readonly section: string;
  readonly open: number;
  readonly back: boolean;
}

/** What leaving the section of one question for another leaves behind; null within a section. */
export function sectionLeft(
  { paper, turns, progress }: AtDesk,
  from: number,
  to: number,
): SectionLeft | null {
  const [left, entered] = [paper.questions[from], paper.questions[to]];
  if (!left || !entered || left.section === entered.section) return null;
  const open = progress.filter((p) => p.question.section === left.section && p.state !== 'done').length;
  return { section: left.section, open, back: turns?.has(left.item) !== true };
}
