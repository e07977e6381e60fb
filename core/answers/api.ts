import type { Fact } from '../kinds/contract';
import type { Hundredths } from '../marks';
import type { ItemFigures } from '../measures/itemFigures';
import type { Ruling } from '../papers/ruling';
import type { Message } from '../messages/message';

/** A question of a round, of which staff can look through what was answered. */
export interface AnsweredPart {
  readonly target: string;
  readonly itemNumber: number;
  readonly title: string;
  readonly part: string;
}

/** One answer and how many gave it. */
export interface AnswerCount {
  readonly component: string;
  readonly type: Fact['type'];
  /** What it is about within the component: the title of a case. */
  readonly of?: string;
  readonly answer: string;
  readonly right: boolean | null;
  readonly count: number;
  /** Of programs: the scripts that came to it, where they are few. */
  readonly scripts: readonly string[];
  /** Can it be accepted from now on? */
  readonly acceptable: boolean;
}

/** What was answered to a part, in all the round's scripts. */
export interface AnswerTable extends AnsweredPart {
  readonly scripts: number;
  readonly answered: number;
  /** The components by key, with their names. */
  readonly components: readonly { readonly key: string; readonly name: Message | null }[];
  readonly answers: readonly AnswerCount[];
}

/** How a part did in a round. */
export interface PartFigures extends AnsweredPart, ItemFigures {
  readonly of: Hundredths;
  /** What was decided of it since; null where nothing was. */
  readonly ruling: Ruling | null;
}
