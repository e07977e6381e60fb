import type { ReactNode } from 'react';
import type { RichNode } from '../../core/kinds/shared/richText';

const MARKS = { bold: 'strong', italic: 'em', underline: 'u' } as const;

function marked(node: RichNode): ReactNode {
  return (node.marks ?? []).reduce<ReactNode>((inner, { type }) => {
    const Mark = MARKS[type];
    return <Mark>{inner}</Mark>;
  }, node.text);
}

/** Rich text of a candidate, built node by node from the allowed few: no HTML is ever parsed. */
export function RichText({ node }: { node: RichNode }): ReactNode {
  const children = (node.content ?? []).map((child, i) => <RichText key={i} node={child} />);
  switch (node.type) {
    case 'text':
      return <span className="wrap-anywhere whitespace-pre-wrap">{marked(node)}</span>;
    case 'hardBreak':
      return <br />;
    case 'paragraph':
      return <p className="mb-3 min-h-4 last:mb-0">{children}</p>;
    case 'bulletList':
      return <ul className="mb-3 list-disc pl-6">{children}</ul>;
    case 'orderedList':
      return <ol className="mb-3 list-decimal pl-6">{children}</ol>;
    case 'listItem':
      return <li>{children}</li>;
    case 'doc':
      return <>{children}</>;
  }
}
