import type { KindName } from '../kinds/kindNames';
import { emptyDocument } from '../documents/document';
import { isForward, itemsOf, minutesOfItem, type FullPaper, type Item, type Section } from '../papers/paper';

/** What one made-up question is expected to take where its author says nothing. */
const MINUTES_EACH = 2;
/** A section has at least so many questions: with one alone there is no way through it. */
const LEAST_QUESTIONS = 2;
/** Keys of items are no longer than this. */
const LONGEST_KEY = 40;

/** The kinds that a section asks, each once, in its order, and whether beside a source. */
const kindsOf = (paper: FullPaper, section: Section): ReadonlyMap<KindName, boolean> => {
  const kinds = new Map<KindName, boolean>();
  for (const { parts, source } of itemsOf(paper, section))
    for (const { kind } of parts) kinds.set(kind, (kinds.get(kind) ?? false) || source !== null);
  return kinds;
};

const asks = (item: Item, kind: KindName): boolean => item.parts.every((part) => part.kind === kind);

/** The same question once more in another section: answers belong to the key of an item. */
const again = (item: Item, section: string): Item => {
  const ending = `-${section.toLowerCase()}`;
  return { ...item, key: `${item.key.slice(0, LONGEST_KEY - ending.length)}${ending}` };
};

const minutesOf = (items: readonly Item[], paper: FullPaper): number =>
  Math.ceil(items.reduce((sum, item) => sum + Math.max(MINUTES_EACH, minutesOfItem(item, paper)), 0));

/**
 * The rehearsal of a round: its real paper's sections with their ways through, aids and limits, and in each the kinds of
 * question that it asks; the questions, texts and handouts are made up. Of the real paper nothing else is in it, neither a
 * title nor a sentence. A limit is as long as the made-up questions take, and never longer than the real one.
 *
 * `madeUp` are the published rehearsals, the usual one first: title, cover and introductions are its own. A kind that none
 * of them asks is left out; where nothing is left, it is the usual rehearsal as it stands.
 */
export function rehearsalLike(real: FullPaper, madeUp: readonly [FullPaper, ...FullPaper[]]): FullPaper {
  const [usual] = madeUp;
  const offered = madeUp.flatMap((paper) => paper.sections.flatMap((section) => itemsOf(paper, section)));
  const handouts = madeUp.flatMap((paper) => paper.sections.flatMap((section) => section.handouts));
  const taken = new Set<string>();
  const take = (kind: KindName, beside: boolean): Item[] => {
    const left = offered.filter((item) => !taken.has(item.key) && asks(item, kind));
    const item = left.find(({ source }) => (source !== null) === beside) ?? left[0];
    if (!item) return [];
    taken.add(item.key);
    return [item];
  };
  const sections = real.sections.flatMap((section, index) => {
    const kinds = kindsOf(real, section);
    const items = [...kinds].flatMap(([kind, beside]) => take(kind, beside));
    for (const [kind, beside] of kinds) {
      if (items.length >= LEAST_QUESTIONS) break;
      const other = take(kind, beside);
      const known = offered.find((item) => asks(item, kind));
      items.push(...(other.length > 0 || !known ? other : [again(known, section.key)]));
    }
    if (items.length === 0) return [];
    const minutes = minutesOf(items, usual);
    const model = usual.sections[Math.min(index, usual.sections.length - 1)]!;
    const shown: Section = {
      key: section.key,
      title: model.title,
      // It speaks of moving about, which is not everywhere possible.
      introduction: isForward(section.navigation) ? emptyDocument : model.introduction,
      minutes: section.minutes === null ? null : Math.min(section.minutes, minutes),
      handouts: section.handouts.length > 0 ? handouts.slice(0, 1) : [],
      navigation: section.navigation,
      aids: section.aids,
      shuffled: false,
      draws: [],
      items: items.map(({ key, version }) => ({ key, version, page: null, draw: null })),
    };
    return [{ shown, items, minutes }];
  });
  if (sections.length === 0) return usual;
  const minutes = sections.reduce((sum, section) => sum + section.minutes, 0);
  return {
    ...usual,
    minutes,
    warningMinutes: usual.warningMinutes.filter((warning) => warning < minutes),
    sections: sections.map(({ shown }) => shown),
    bands: [],
    bank: sections.flatMap(({ items }) => items),
  };
}
