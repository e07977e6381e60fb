import type { ComponentType } from 'react';
import type { Block, Inline } from '../../core/documents/document';
import type { NodeType } from '../../core/documents/everyNode';
import { ComponentShelf } from '../ui/ComponentShelf';
import type { NodeProps } from './nodeProps';

/** What few texts hold and takes much to draw is fetched only where a paper has some. */
const loaders = {
  formula: async () => (await import('./Formula')).Formula,
  meaning: async () => (await import('./Meaning')).Meaning,
  chart: async () => (await import('./Chart')).Chart,
  audio: async () => (await import('./AudioPlayer')).AudioPlayer,
  video: async () => (await import('./VideoPlayer')).VideoPlayer,
  pdf: async () => (await import('./PdfView')).PdfView,
} satisfies { readonly [T in NodeType]?: () => Promise<ComponentType<never>> };

export type LazyType = keyof typeof loaders;

export const lazyNodes = new ComponentShelf<LazyType, NodeProps<Block | Inline>>((type) => loaders[type]());

const isLazy = (type: NodeType): type is LazyType => Object.hasOwn(loaders, type);

/** Fetches what documents with these nodes are drawn by. */
export const loadNodes = async (types: Iterable<NodeType>): Promise<void> => {
  const wanted = [...types];
  await Promise.all([
    lazyNodes.load(wanted.filter(isLazy)),
    wanted.includes('picture') && import('./LargePicture'),
  ]);
};
