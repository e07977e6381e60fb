import type { LevelBand, Scale } from '../adaptive/level';
import type { AdaptiveRules } from '../adaptive/rules';
import type { ItemParameters } from '../measures/itemModel';
import type { Document } from '../documents/document';
import type { Content } from '../kinds/contract';
import type { KindName } from '../kinds/kindNames';
import type { AidName } from '../kit/aids';
import { sumMarks, type Hundredths } from '../marks';
import type { Ruling } from './ruling';

export interface SourceTab {
  readonly title: string;
  readonly body: Document;
}

/** What a question is about. Questions whose sources have the same key share it at the desk. */
export interface Source {
  readonly key: string;
  readonly tabs: readonly SourceTab[];
}

export interface Part {
  /** A letter. */
  readonly key: string;
  readonly kind: KindName;
  /** Of the content, as the kind counts its versions. */
  readonly version: number;
  readonly marks: Hundredths;
  /** The author's estimate, for the pace line; null falls back to the marks. */
  readonly minutes: number | null;
  readonly prompt: Document;
  /** Why the right answer is right: shown on the sheet with it. Never part of a candidate's copy. */
  readonly explanation?: Document | undefined;
  readonly content: Content<unknown, unknown>;
  /** What was decided of it since it was published; no stored version has one. */
  readonly ruling?: Ruling | undefined;
}

/** What a group of people showed of an item: the two-parameter or the partial credit model, in logits of that group. */
export interface Calibration extends ItemParameters {
  /** People whose answers it is made of. */
  readonly persons: number;
}

/** What an adaptive section chooses an item by. Never part of a candidate's copy. */
export interface ItemMeasures {
  readonly topic: string;
  /** The author's estimate, 1 (easy) to 5; it stands in where there is no calibration. */
  readonly difficulty: number;
  /** One threshold for each mark; null before anybody has answered it. */
  readonly calibration: Calibration | null;
}

/** State of an item version in the bank. Only approved ones are used in papers. */
export type ItemState = 'draft' | 'in review' | 'approved' | 'retired';

/** One immutable version of an item, as the bank stores it, key and all. */
export interface Item {
  readonly key: string;
  readonly version: number;
  readonly title: string;
  /** Shown before the question; candidates can fold it away. Empty for none. */
  readonly introduction: Document;
  readonly source: Source | null;
  readonly parts: readonly Part[];
  readonly measures?: ItemMeasures | undefined;
}

export interface ItemEntry {
  readonly key: string;
  readonly version: number;
  /** Neighbours with the same page are shown together, one below the other; null for a page of its own. */
  readonly page: string | null;
  /** Of the questions with the same draw, a form has as many as its section says; null for one that is always asked. */
  readonly draw: string | null;
}

/** How one goes through a section: in any order, or each question once, in order. */
export const navigations = [
  'free',
  'free, all answered',
  'forward only',
  'forward only once answered',
] as const;
export type Navigation = (typeof navigations)[number];

/** Whether one goes through a section forward only; else one can move freely in it. */
export const isForward = (navigation: Navigation): boolean => navigation.startsWith('forward');

/** A document that may be consulted all through a section. */
export interface Handout extends SourceTab {
  readonly key: string;
}

export interface Section {
  /** A letter. */
  readonly key: string;
  readonly title: string;
  readonly introduction: Document;
  /** A limit of its own, from when the section is first opened; null for none. It runs inside the paper's. */
  readonly minutes: number | null;
  readonly handouts: readonly Handout[];
  readonly navigation: Navigation;
  /** The aids that it allows. */
  readonly aids: readonly AidName[];
  /** Whether its questions come in another order for each candidate; those on one page or with one source stay together. */
  readonly shuffled: boolean;
  /** Which questions are drawn for each candidate, and how many of them. */
  readonly draws: readonly { readonly draw: string; readonly count: number }[];
  readonly items: readonly ItemEntry[];
  /** How its questions are chosen by what was answered so far; without it all are asked, or as many as are drawn. */
  readonly adaptive?: AdaptiveSection | undefined;
}

/** The rules of an adaptive section, and how its result is told. */
export interface AdaptiveSection extends AdaptiveRules {
  readonly scale: Scale;
  /** From the lowest. The first has no lower bound, whatever it says. */
  readonly levels: readonly LevelBand[];
}

/** What candidates accept before the test: the text, and the lines that they tick. */
export interface Rules {
  readonly version: string;
  readonly text: Document;
  readonly statements: readonly { readonly key: string; readonly text: string }[];
}

export interface Paper {
  readonly key: string;
  readonly version: number;
  readonly title: string;
  readonly cover: Document;
  readonly minutes: number;
  readonly warningMinutes: readonly number[];
  readonly sections: readonly Section[];
  /** Bands from the lowest; `from` in hundredths. */
  readonly bands: readonly { readonly title: string; readonly from: number }[];
  readonly showRightAnswers: boolean;
  /** Whether assessors see the rough work; it is never marked. */
  readonly showRoughWork: boolean;
  readonly rules: Rules;
}

/** A published paper with the very item versions it names. */
export interface FullPaper extends Paper {
  readonly bank: readonly Item[];
}

export function itemsOf(paper: FullPaper, section: Paper['sections'][number]): Item[] {
  return section.items.map((wanted) => {
    const item = paper.bank.find((i) => i.key === wanted.key && i.version === wanted.version);
    if (!item)
      throw new Error(`the paper names ${wanted.key} version ${wanted.version}, which is not with it`);
    return item;
  });
}

export const allItems = (paper: FullPaper): Item[] =>
  paper.sections.flatMap((section) => itemsOf(paper, section));

export const marksOfItem = (item: { parts: readonly { marks: Hundredths }[] }): Hundredths =>
  sumMarks(item.parts.map((part) => part.marks));

/** Where an answer belongs: `item-key/A`. */
export const targetOf = (itemKey: string, partKey: string): string => `${itemKey}/${partKey}`;

export interface PartInPlace {
  readonly target: string;
  readonly item: Item;
  readonly part: Part;
}

export const allParts = (paper: FullPaper): PartInPlace[] =>
  allItems(paper).flatMap((item) =>
    item.parts.map((part) => ({ target: targetOf(item.key, part.key), item, part })),
  );

/** The texts of a paper that may hold media, with where they are. */
export const documentsOfPaper = (
  paper: FullPaper,
): { readonly path: readonly (string | number)[]; readonly document: Document }[] => [
  ...paper.sections.flatMap(({ introduction, handouts }, i) => [
    { path: ['sections', i, 'introduction'], document: introduction },
    ...handouts.map(({ body }, k) => ({ path: ['sections', i, 'handouts', k, 'body'], document: body })),
  ]),
  ...paper.bank.flatMap(({ introduction, source, parts }, i) => [
    { path: ['bank', i, 'introduction'], document: introduction },
    ...(source?.tabs ?? []).map(({ body }, k) => ({
      path: ['bank', i, 'source', 'tabs', k, 'body'],
      document: body,
    })),
    ...parts.flatMap(({ prompt, explanation }, k) => [
      { path: ['bank', i, 'parts', k, 'prompt'], document: prompt },
      ...(explanation ? [{ path: ['bank', i, 'parts', k, 'explanation'], document: explanation }] : []),
    ]),
  ]),
];

/** Marks of a form: an adaptive section has none; draws count as often as they are drawn, since all questions of one are worth the same. */
export function marksOfPaper(paper: FullPaper): Hundredths {
  return sumMarks(
    paper.sections.flatMap((section) => {
      if (section.adaptive) return [];
      const items = itemsOf(paper, section);
      const fixed = items.filter((_, i) => section.items[i]!.draw === null).map(marksOfItem);
      const pools = section.draws.map(({ draw, count }) => {
        const one = items.find((_, i) => section.items[i]!.draw === draw);
        return one ? count * marksOfItem(one) : 0;
      });
      return [...fixed, ...pools];
    }),
  );
}

/** Minutes an author expects for an item; by its share of the marks (or of the questions) where the author gave none. */
export function minutesOfItem(item: Item, paper: FullPaper): number {
  if (item.parts.every((part) => part.minutes !== null))
    return item.parts.reduce((sum, part) => sum + (part.minutes ?? 0), 0);
  const marks = marksOfPaper(paper);
  return marks === 0 ? paper.minutes / paper.bank.length : (paper.minutes * marksOfItem(item)) / marks;
}

/** The section of each item that belongs to one with a limit of its own, by item key. */
export const limitedSections = (paper: Paper): ReadonlyMap<string, string> =>
  new Map(
    paper.sections.flatMap((section) =>
      section.minutes === null ? [] : section.items.map((item) => [item.key, section.key] as const),
    ),
  );
