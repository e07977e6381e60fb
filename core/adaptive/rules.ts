import type { ItemParameters } from '../measures/itemModel';
import type { Prior } from '../measures/ability';

/** What is asked in one step: an item, or all items of one source. */
export interface Unit {
  readonly key: string;
  readonly parameters: ItemParameters;
  /** The topic of each of its questions: a unit counts with all of them. */
  readonly topics: readonly string[];
}

/** A topic and the share of the questions that it is to have, from 0 to 1. */
export interface TopicShare {
  readonly topic: string;
  readonly share: number;
}

export interface AdaptiveRules {
  readonly prior: Prior;
  /** The section ends once the error is no more than this, in logits, and so many questions were asked. */
  readonly targetError: number;
  readonly leastLength: number;
  readonly greatestLength: number;
  readonly topics: readonly TopicShare[];
  /** One of so many best is taken. */
  readonly best: number;
  /** The share of sittings in which a unit may be asked, above 0 to 1. */
  readonly exposureLimit: number;
}

/** How many questions units have. */
export const questionsIn = (units: readonly Unit[]): number =>
  units.reduce((sum, unit) => sum + unit.topics.length, 0);
