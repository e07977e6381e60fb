import { bundled, estimatedItem, type ItemParameters } from '../measures/itemModel';
import { itemsOf, marksOfItem, type FullPaper, type Item, type Section } from './paper';
import type { Unit } from '../adaptive/rules';

/** With fewer calibrating people a section reports no level: it is only being tried out. */
export const LEAST_PERSONS = 500;

/** The whole marks of an item: the score that its model is about. */
export const stepsOf = (item: Item): number => Math.floor(marksOfItem(item) / 100);

/** How likely scores of an item are: as it was calibrated, or else by its author's estimate, each mark as hard. */
function parametersOf(item: Item): ItemParameters {
  const { calibration, difficulty } = item.measures!;
  if (calibration) return { a: calibration.a, thresholds: calibration.thresholds };
  const { a, thresholds } = estimatedItem(difficulty);
  return { a, thresholds: Array.from({ length: stepsOf(item) }, () => thresholds[0]!) };
}

/** Items that are asked as a whole: those with one source. */
function bundlesOf(items: readonly Item[]): Item[][] {
  const bundles = new Map<string, Item[]>();
  for (const item of items) {
    // A letter before it, so that no source has the key of an item.
    const key = item.source ? `s ${item.source.key}` : `i ${item.key}`;
    bundles.set(key, [...(bundles.get(key) ?? []), item]);
  }
  return [...bundles.values()];
}

/**
 * What an adaptive section can ask in one step, named by its first item. Its questions must have what they are chosen by
 * (`issuesOfAdaptive`).
 */
export const poolOf = (paper: FullPaper, section: Section): Unit[] =>
  bundlesOf(itemsOf(paper, section)).map((items) => ({
    key: items[0]!.key,
    parameters: bundled(items.map(parametersOf)),
    topics: items.map((item) => item.measures!.topic),
  }));

/** The fewest people that any question of a section was calibrated on: 0 where one has an author's estimate only. */
export const calibratedOn = (paper: FullPaper, section: Section): number =>
  Math.min(...itemsOf(paper, section).map((item) => item.measures?.calibration?.persons ?? 0));

/** How many questions of a section have an author's estimate only. */
export const estimatedIn = (paper: FullPaper, section: Section): number =>
  itemsOf(paper, section).filter((item) => !item.measures?.calibration).length;
