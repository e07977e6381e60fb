import { itemsOf, type FullPaper, type Item, type Paper } from '../papers/paper';
import { shuffled, type Random } from '../random';

type Section = Paper['sections'][number];

export interface PlacedItem {
  readonly item: Item;
  readonly page: string | null;
}

/** Of each draw as many as the section says; the others stay out. */
function drawn(section: Section, random: Random): ReadonlySet<number> {
  const taken = new Set(section.items.flatMap(({ draw }, i) => (draw === null ? [i] : [])));
  for (const { draw, count } of section.draws) {
    const pool = section.items.flatMap((entry, i) => (entry.draw === draw ? [i] : []));
    for (const i of shuffled(pool, random).slice(0, count)) taken.add(i);
  }
  return taken;
}

/** What stays together when a section is shuffled: neighbours on one page, or with one source. */
function groups(placed: readonly PlacedItem[]): PlacedItem[][] {
  const result: PlacedItem[][] = [];
  for (const one of placed) {
    const before = result.at(-1)?.at(-1);
    const samePage = one.page !== null && before?.page === one.page;
    const sameSource = one.item.source !== null && before?.item.source?.key === one.item.source.key;
    if (samePage || sameSource) result.at(-1)!.push(one);
    else result.push([one]);
  }
  return result;
}

/** Every question that a section may ask, in the author's order. */
export const wholeSection = (paper: FullPaper, section: Section): PlacedItem[] =>
  itemsOf(paper, section).map((item, i) => ({ item, page: section.items[i]!.page }));

/** The questions of a section for one candidate: drawn, and in their order. */
export function arrangeItems(paper: FullPaper, section: Section, random: Random): PlacedItem[] {
  const taken = drawn(section, random);
  const placed = wholeSection(paper, section).filter((_, i) => taken.has(i));
  return section.shuffled ? shuffled(groups(placed), random).flat() : placed;
}
