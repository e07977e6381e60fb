import * as v from 'valibot';
import type { Document } from '../documents/document';
import { documentSchema } from '../documents/documentSchema';
import { sumMarks, type Hundredths } from '../marks';
import { readContent } from '../kinds/authoring';
import { isKindName, type KindName } from '../kinds/kindNames';
import { aidNames } from '../kit/aids';
import type { Content } from '../kinds/contract';
import { keyKindOf } from '../kinds/keyKinds';

const key = v.pipe(v.string(), v.regex(/^[a-z0-9-]{1,40}$/));
const letter = v.pipe(v.string(), v.regex(/^[A-F]$/));
const text = v.pipe(v.string(), v.maxLength(20_000));

const tab = v.strictObject({ title: text, body: documentSchema });
const sourceSchema = v.strictObject({
  key,
  tabs: v.pipe(v.array(tab), v.minLength(1), v.maxLength(6)),
});
/** What a question is about. Questions whose sources have the same key share it at the desk. */
export type Source = v.InferOutput<typeof sourceSchema>;

const partSchema = v.pipe(
  v.strictObject({
    key: letter,
    kind: v.custom<KindName>(isKindName, 'unknown kind of part'),
    /** Of the content, as the kind counts its versions. */
    version: v.pipe(v.number(), v.integer(), v.minValue(1)),
    marks: v.pipe(v.number(), v.integer(), v.minValue(1), v.maxValue(100_000)),
    /** The author's estimate, for the pace line; null falls back to the marks. */
    minutes: v.nullable(v.pipe(v.number(), v.minValue(0))),
    prompt: documentSchema,
    content: v.unknown(),
  }),
  v.rawTransform(({ dataset, addIssue, NEVER }) => {
    const { kind, version, content: stored } = dataset.value;
    try {
      const content: Content<unknown, unknown> = readContent(keyKindOf(kind), stored, version);
      return { ...dataset.value, version: keyKindOf(kind).contentVersion, content };
    } catch (error) {
      addIssue({ message: `${kind}: ${v.isValiError(error) ? v.summarize(error.issues) : String(error)}` });
      return NEVER;
    }
  }),
);
export type Part = v.InferOutput<typeof partSchema>;

/** State of an item version in the bank. Only approved ones are used in papers. */
export type ItemState = 'draft' | 'in review' | 'approved' | 'retired';

/** One immutable version of an item, as the bank stores it, key and all. */
export const itemSchema = v.strictObject({
  key,
  version: v.pipe(v.number(), v.integer(), v.minValue(1)),
  title: text,
  /** Shown before the question; candidates can fold it away. Empty for none. */
  introduction: documentSchema,
  source: v.nullable(sourceSchema),
  parts: v.pipe(v.array(partSchema), v.minLength(1), v.maxLength(6)),
});
export type Item = v.InferOutput<typeof itemSchema>;

const itemEntry = v.strictObject({
  key,
  version: v.number(),
  /** Neighbours with the same page are shown together, one below the other; null for a page of its own. */
  page: v.nullable(key),
  /** Of the questions with the same draw, a form has as many as its section says; null for one that is always asked. */
  draw: v.nullable(key),
});

/** How one goes through a section: in any order, or each question once, in order. */
export const navigations = ['free', 'forward only', 'forward only once answered'] as const;
export type Navigation = (typeof navigations)[number];

const sectionSchema = v.strictObject({
  key: letter,
  title: text,
  introduction: documentSchema,
  /** A limit of its own, from when the section is first opened; null for none. It runs inside the paper's. */
  minutes: v.nullable(v.pipe(v.number(), v.minValue(1), v.maxValue(600))),
  /** What may be consulted all through the section. */
  handouts: v.pipe(v.array(v.strictObject({ key, ...tab.entries })), v.maxLength(8)),
  navigation: v.picklist(navigations),
  /** The aids that it allows. */
  aids: v.array(v.picklist(aidNames)),
  /** Whether its questions come in another order for each candidate; those on one page or with one source stay together. */
  shuffled: v.boolean(),
  /** Which questions are drawn for each candidate, and how many of them. */
  draws: v.array(v.strictObject({ draw: key, count: v.pipe(v.number(), v.integer(), v.minValue(1)) })),
  items: v.pipe(v.array(itemEntry), v.minLength(1)),
});
/** A document that may be consulted all through a section. */
export type Handout = v.InferOutput<typeof sectionSchema>['handouts'][number];

export const paperSchema = v.strictObject({
  key,
  version: v.pipe(v.number(), v.integer(), v.minValue(1)),
  title: text,
  cover: documentSchema,
  minutes: v.pipe(v.number(), v.minValue(1), v.maxValue(600)),
  warningMinutes: v.array(v.number()),
  sections: v.pipe(v.array(sectionSchema), v.minLength(1), v.maxLength(6)),
  /** Bands from the lowest; `from` in hundredths. */
  bands: v.array(v.strictObject({ title: text, from: v.number() })),
  showRightAnswers: v.boolean(),
  /** Whether assessors see the rough work; it is never marked. */
  showRoughWork: v.boolean(),
  rules: v.strictObject({
    version: v.string(),
    text: documentSchema,
    statements: v.array(v.strictObject({ key, text })),
  }),
});
export type Paper = v.InferOutput<typeof paperSchema>;

export const fullPaperSchema = v.strictObject({ ...paperSchema.entries, bank: v.array(itemSchema) });

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
    ...parts.map(({ prompt }, k) => ({ path: ['bank', i, 'parts', k, 'prompt'], document: prompt })),
  ]),
];

/** Marks of a form: draws count as often as they are drawn, since all questions of one are worth the same. */
export function marksOfPaper(paper: FullPaper): Hundredths {
  return sumMarks(
    paper.sections.flatMap((section) => {
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

/** Minutes an author expects for an item; by its share of the marks where the author gave none. */
export function minutesOfItem(item: Item, paper: FullPaper): number {
  if (item.parts.every((part) => part.minutes !== null))
    return item.parts.reduce((sum, part) => sum + (part.minutes ?? 0), 0);
  return (paper.minutes * marksOfItem(item)) / marksOfPaper(paper);
}

/** The section of each item that belongs to one with a limit of its own, by item key. */
export const limitedSections = (paper: Paper): ReadonlyMap<string, string> =>
  new Map(
    paper.sections.flatMap((section) =>
      section.minutes === null ? [] : section.items.map((item) => [item.key, section.key] as const),
    ),
  );
