import type { ComponentType } from 'react';
import type { KindName } from '../../core/kinds/candidateKinds';
import type { ReadingProps } from './answerProps';
import { ComponentShelf } from '../ui/ComponentShelf';

/** The reading component of every kind, for marking and results. A new kind adds its line here. */
const loaders = {
  choice: async () => (await import('./choice/Reading')).Reading,
  code: async () => (await import('./code/Reading')).Reading,
  gaps: async () => (await import('./gaps/Reading')).Reading,
  number: async () => (await import('./number/Reading')).Reading,
  order: async () => (await import('./order/Reading')).Reading,
  writing: async () => (await import('./writing/Reading')).Reading,
} satisfies { [K in KindName]: () => Promise<ComponentType<never>> };

export const readings = new ComponentShelf<KindName, ReadingProps<unknown, unknown>>((name) =>
  loaders[name](),
);
