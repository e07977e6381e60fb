import type { ComponentType } from 'react';
import type { NodeType } from '../../core/documents/everyNode';
import type { KindName } from '../../core/kinds/kindNames';
import type { AnswerProps } from './answerProps';
import { ComponentShelf } from '../ui/ComponentShelf';
import { bringCandidateKind } from './candidates';

interface Entry {
  /** `column`: a part among parts at reading width. `wide`: the same, with all the width that there is. `whole`: takes the desk and shows the prompt itself. */
  readonly layout: 'column' | 'wide' | 'whole';
  readonly load: () => Promise<ComponentType<never>>;
  /** Long work: the candidate can look through earlier versions. */
  readonly versions?: true;
  /** What the browser must be able to do, beyond what every paper needs. */
  readonly needs?: readonly Feature[];
  /** What it is drawn by besides, of the sorts of nodes of texts: kept on the device for a desk without a network. */
  readonly drawnLike?: readonly NodeType[];
}

export type Feature = 'WebAssembly' | 'workers' | 'ownElements' | 'pictures';

/** The answering component of every kind. A new kind adds its line here. */
const entries = {
  choice: { layout: 'column', load: async () => (await import('./choice/Answer')).Answer },
  code: {
    layout: 'whole',
    versions: true,
    load: async () => (await import('./code/Answer')).Answer,
    needs: ['WebAssembly', 'workers'],
  },
  expression: {
    layout: 'column',
    load: async () => (await import('./expression/Answer')).Answer,
    needs: ['ownElements'],
    drawnLike: ['formula'],
  },
  gaps: { layout: 'column', load: async () => (await import('./gaps/Answer')).Answer },
  'grid-choice': { layout: 'column', load: async () => (await import('./grid-choice/Answer')).Answer },
  'hot-area': { layout: 'column', load: async () => (await import('./hot-area/Answer')).Answer },
  match: { layout: 'column', load: async () => (await import('./match/Answer')).Answer },
  number: { layout: 'column', load: async () => (await import('./number/Answer')).Answer },
  'number-line': { layout: 'column', load: async () => (await import('./number-line/Answer')).Answer },
  'on-paper': { layout: 'column', load: async () => (await import('./on-paper/Answer')).Answer },
  order: { layout: 'column', load: async () => (await import('./order/Answer')).Answer },
  plot: { layout: 'wide', load: async () => (await import('./plot/Answer')).Answer },
  'select-text': { layout: 'column', load: async () => (await import('./select-text/Answer')).Answer },
  sort: { layout: 'column', load: async () => (await import('./sort/Answer')).Answer },
  'table-entry': { layout: 'column', load: async () => (await import('./table-entry/Answer')).Answer },
  upload: {
    layout: 'column',
    load: async () => (await import('./upload/Answer')).Answer,
    needs: ['pictures'],
    drawnLike: ['pdf'],
  },
  writing: {
    layout: 'column',
    versions: true,
    load: async () => (await import('./writing/Answer')).Answer,
  },
} satisfies { [K in KindName]: Entry };

export const answers = new ComponentShelf<KindName, AnswerProps<unknown, unknown>>((name) =>
  Promise.all([entries[name].load(), bringCandidateKind(name)]).then(([component]) => component),
);
/** What a browser must be able to do for these kinds. */
export const featuresFor = (names: readonly KindName[]): Feature[] => {
  const all: Record<KindName, Entry> = entries;
  return [...new Set(names.flatMap((name) => all[name].needs ?? []))];
};

/** The sorts of nodes whose files these kinds need. */
export const drawnLike = (names: readonly KindName[]): NodeType[] => {
  const all: Record<KindName, Entry> = entries;
  return names.flatMap((name) => all[name].drawnLike ?? []);
};

export const layoutOf = (name: KindName): Entry['layout'] => entries[name].layout;

export const hasVersions = (name: KindName): boolean => {
  const all: Record<KindName, Entry> = entries;
  return all[name].versions === true;
};
