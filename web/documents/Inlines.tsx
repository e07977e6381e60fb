import type { ReactElement } from 'react';
import type { Inline } from '../../core/documents/document';
import { LazyNode } from './LazyNode';
import { Phrase } from './Phrase';

const CODE = 'rounded bg-shade px-1 font-mono text-[0.88em]';

function InlineView({ node }: { node: Inline }): ReactElement | string {
  switch (node.type) {
    case 'text':
      return node.text;
    case 'break':
      return <br />;
    case 'strong':
      return (
        <strong>
          <Inlines of={node.children} />
        </strong>
      );
    case 'emphasis':
      return (
        <em>
          <Inlines of={node.children} />
        </em>
      );
    case 'deleted':
      return (
        <del>
          <Inlines of={node.children} />
        </del>
      );
    case 'code':
      return <code className={CODE}>{node.text}</code>;
    case 'formula':
      return <LazyNode type="formula" node={node} display={false} />;
    case 'phrase':
      return (
        <Phrase name={node.key}>
          <Inlines of={node.children} />
        </Phrase>
      );
    case 'meaning':
      return (
        <LazyNode type="meaning" node={node} display={false}>
          <Inlines of={node.children} />
        </LazyNode>
      );
    case 'language':
      return (
        <span lang={node.lang} dir={node.dir}>
          <Inlines of={node.children} />
        </span>
      );
  }
}

export const Inlines = ({ of }: { of: readonly Inline[] }) =>
  of.map((node, i) => <InlineView key={i} node={node} />);
