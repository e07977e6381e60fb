import 'katex/dist/katex.min.css';
import katex from 'katex';
import { useLayoutEffect, useRef } from 'react';
import type { FormulaNode } from '../../core/documents/document';
import type { NodeProps } from './nodeProps';

/** A formula; whoever listens hears how the author says it, or else its mathematical markup. */
export function Formula({ node, display }: NodeProps<FormulaNode>) {
  const place = useRef<HTMLSpanElement>(null);
  const { tex, says } = node;
  useLayoutEffect(() => {
    if (!place.current) return;
    // It was read once at publication; drawn as its own notation where that should fail here all the same.
    katex.render(tex, place.current, {
      displayMode: display,
      throwOnError: false,
      strict: 'ignore',
      trust: false,
      maxExpand: 100,
      output: says === null ? 'htmlAndMathml' : 'html',
    });
  }, [tex, says, display]);
  const drawn = <span ref={place} aria-hidden={says === null ? undefined : true} />;
  const spoken = says === null ? null : <span className="sr-only">{says}</span>;
  return (
    <span className={display ? 'mb-3 block overflow-x-auto overflow-y-hidden last:mb-0' : ''}>
      {drawn}
      {spoken}
    </span>
  );
}
