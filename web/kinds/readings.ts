import type { ComponentType } from 'react';
import type { KindName } from '../../core/kinds/kindNames';
import type { ReadingProps, TrialProps } from './answerProps';
import { ComponentShelf } from '../ui/ComponentShelf';
import { bringCandidateKind } from './candidates';

interface Entry {
  readonly load: () => Promise<ComponentType<never>>;
  /** It draws the right answer itself, beside or within what was given. */
  readonly drawsRight?: true;
  /** It needs all the width that there is, as lines of a program do. */
  readonly wide?: true;
  /** With it an assessor runs the answer again. */
  readonly trial?: () => Promise<ComponentType<never>>;
}

/** The reading component of every kind, for marking and results. A new kind adds its line here. */
const entries = {
  choice: { load: async () => (await import('./choice/Reading')).Reading },
  code: {
    load: async () => (await import('./code/Reading')).Reading,
    wide: true,
    trial: async () => (await import('./code/Trial')).Trial,
  },
  expression: { load: async () => (await import('./expression/Reading')).Reading },
  gaps: { load: async () => (await import('./gaps/Reading')).Reading },
  'grid-choice': { load: async () => (await import('./grid-choice/Reading')).Reading, drawsRight: true },
  'hot-area': { load: async () => (await import('./hot-area/Reading')).Reading, drawsRight: true },
  match: { load: async () => (await import('./match/Reading')).Reading, drawsRight: true },
  number: { load: async () => (await import('./number/Reading')).Reading },
  'number-line': { load: async () => (await import('./number-line/Reading')).Reading, drawsRight: true },
  'on-paper': { load: async () => (await import('./on-paper/Reading')).Reading },
  order: { load: async () => (await import('./order/Reading')).Reading },
  plot: { load: async () => (await import('./plot/Reading')).Reading, drawsRight: true },
  'select-text': { load: async () => (await import('./select-text/Reading')).Reading, drawsRight: true },
  sort: { load: async () => (await import('./sort/Reading')).Reading, drawsRight: true },
  'table-entry': { load: async () => (await import('./table-entry/Reading')).Reading, drawsRight: true },
  upload: { load: async () => (await import('./upload/Reading')).Reading },
  writing: { load: async () => (await import('./writing/Reading')).Reading },
} satisfies { [K in KindName]: Entry };

export const readings = new ComponentShelf<KindName, ReadingProps<unknown, unknown>>((name) =>
  Promise.all([entries[name].load(), bringCandidateKind(name)]).then(([component]) => component),
);

const every: Record<KindName, Entry> = entries;

/** Can an assessor run answers of this kind again? */
export const canBeTried = (name: KindName): boolean => every[name].trial !== undefined;

export const trials = new ComponentShelf<KindName, TrialProps<unknown, unknown>>((name) =>
  every[name].trial!(),
);

/** Does a kind need all the width that there is? */
export const readsWide = (name: KindName): boolean => every[name].wide === true;

/** Where a kind does not draw the right answer itself, it stands beside the answer as another answer of its kind. */
export const drawsRight = (name: KindName): boolean => every[name].drawsRight === true;
