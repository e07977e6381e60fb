import type { CandidatePaper } from '../papers/candidatePaper';
import { isForward } from '../papers/paper';
import type { Desk } from './desk';
import { isLater, type EntryAbout, type EntryRef } from './entry';

/*
 * Sections through which one goes forward only. A question of such a section is passed once a later one of it was gone
 * to, or once the section was left; in one that is forward only once answered, a question's turn comes when all before
 * it are done. Judged by running number, not by arrival (`2-domain.md`, “Journal and receipt”).
 */

export interface ForwardSection {
  readonly onceAnswered: boolean;
  /** Its questions in their order, each with the targets of its parts. */
  readonly items: readonly string[];
  readonly parts: ReadonlyMap<string, readonly string[]>;
}

/** The sections of a form through which one goes forward only, by each of their items. */
export type ForwardSections = ReadonlyMap<string, ForwardSection>;

/** Null where one can move freely through the whole paper. */
export function forwardSectionsOf({
  sections,
  questions,
}: Pick<CandidatePaper, 'sections' | 'questions'>): ForwardSections | null {
  const turns = new Map<string, ForwardSection>();
  for (const { key, navigation } of sections) {
    if (!isForward(navigation)) continue;
    const own = questions.filter((question) => question.section === key);
    const items = own.map((question) => question.item);
    const parts = new Map(own.map(({ item, parts }) => [item, parts.map((part) => part.target)]));
    const section = { onceAnswered: navigation === 'forward only once answered', items, parts };
    for (const item of items) turns.set(item, section);
  }
  return turns.size === 0 ? null : turns;
}

/** An entry of a journal as its turn is judged. */
export interface TurnEntry extends EntryRef {
  readonly about: EntryAbout;
  readonly target: string;
  readonly arrivedAt: number;
}

/** What was written before an entry, by the order that decides. */
export interface Before {
  /** Entries that show where the candidate went (`isVisit`), in any order. */
  readonly visits: readonly TurnEntry[];
  /** When each hold was granted, by its number. */
  readonly grantedAt: (hold: number) => number;
  /** Whether the answers to a question were complete before an entry. */
  readonly doneBefore: (item: string, entry: TurnEntry) => boolean;
}

/**
 * Whether an entry shows where the candidate went: a step, and an answer too, for a device that notes no steps would find
 * every question open again.
 */
export const isVisit = ({ about }: Pick<TurnEntry, 'about'>): boolean =>
  about === 'place' || about === 'answer';

const itemOf = (target: string): string => target.split('/')[0]!;

/** Whether one entry comes before another: in its hold, known when its hold was granted, or sent earlier by a later hold. */
export function wasBefore(earlier: TurnEntry, entry: TurnEntry, grantedAt: Before['grantedAt']): boolean {
  if (earlier.hold === entry.hold) return earlier.number < entry.number;
  if (earlier.hold < entry.hold) return earlier.arrivedAt <= grantedAt(entry.hold);
  // Within the same millisecond the step counts as the earlier one.
  return earlier.arrivedAt <= entry.arrivedAt;
}

/** Whether an answer was given out of its turn: to a question that was passed, or whose turn had not come. */
export function isOutOfTurn(turns: ForwardSections, entry: TurnEntry, before: Before): boolean {
  if (entry.about !== 'answer' && entry.about !== 'event') return false;
  const item = itemOf(entry.target);
  const section = turns.get(item);
  if (!section) return false;
  const visits = before.visits
    .filter((visit) => wasBefore(visit, entry, before.grantedAt))
    .sort((a, b) => (isLater(a, b) ? 1 : -1))
    .map((visit) => itemOf(visit.target));
  if (isPassed(section, item, visits)) return true;
  const earlier = section.onceAnswered ? section.items.slice(0, section.items.indexOf(item)) : [];
  return earlier.some((one) => !before.doneBefore(one, entry));
}

/** Was a question passed on this way through the paper? */
function isPassed({ items }: ForwardSection, item: string, visits: readonly string[]): boolean {
  const entered = visits.findIndex((visit) => items.includes(visit));
  if (entered < 0) return false;
  const own = items.indexOf(item);
  return visits.slice(entered).some((visit) => !items.includes(visit) || items.indexOf(visit) > own);
}

/** The questions that are closed at the desk as it is: those passed, and whole sections that were left. */
export function closedItems(
  turns: ForwardSections | null,
  { opened, place }: Pick<Desk, 'opened' | 'place'>,
): string[] {
  return [...(turns ?? [])].flatMap(([item, { items }]) => {
    const at = place === null ? -1 : items.indexOf(place);
    const left = at < 0 && items.some((one) => opened[one] === true);
    return left || items.indexOf(item) < at ? [item] : [];
  });
}
