import type { Block, Inline } from '../../core/documents/document';
import { useReady } from '../ui/ComponentShelf';
import { lazyNodes, type LazyType } from './lazyNodes';
import type { NodeProps } from './nodeProps';

/** A node as its plain text until the component that draws it is here, which nearly always it is. */
export function LazyNode({ type, ...props }: NodeProps<Block | Inline> & { readonly type: LazyType }) {
  if (useReady(lazyNodes, type)) return lazyNodes.draw(type, props);
  const { node, children } = props;
  return children ?? ('tex' in node ? (node.says ?? node.tex) : 'title' in node ? node.title : null);
}
