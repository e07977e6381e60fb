import { useMemo } from 'react';
import { parseInlines, parsePassage, type Block, type Inline } from '../../core/text/passage';

function Inlines({ of }: { of: readonly Inline[] }) {
  return of.map((inline, i) => {
    if (inline.style === 'strong') return <strong key={i}>{inline.text}</strong>;
    if (inline.style === 'stressed') return <em key={i}>{inline.text}</em>;
    if (inline.style === 'code')
      return (
        <code key={i} className="rounded bg-shade px-1 font-mono text-[0.88em]">
          {inline.text}
        </code>
      );
    return <span key={i}>{inline.text}</span>;
  });
}

function BlockView({ block }: { block: Block }) {
  if (block.type === 'paragraph')
    return (
      <p className="mb-3 last:mb-0">
        <Inlines of={block.inlines} />
      </p>
    );
  if (block.type === 'list') {
    const List = block.ordered ? 'ol' : 'ul';
    return (
      <List className={`mb-3 space-y-1 pl-6 last:mb-0 ${block.ordered ? 'list-decimal' : 'list-disc'}`}>
        {block.items.map((item, i) => (
          <li key={i}>
            <Inlines of={item} />
          </li>
        ))}
      </List>
    );
  }
  return (
    <div className="mb-3 overflow-x-auto">
      <table className="w-full border-collapse font-sans text-[0.92em]">
        <thead>
          <tr>
            {block.head.map((cell, i) => (
              <th key={i} className="border-b border-line px-2 py-1.5 text-left font-semibold text-soft">
                <Inlines of={cell} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {block.rows.map((row, i) => (
            <tr key={i}>
              {row.map((cell, k) => (
                <td key={k} className="border-b border-line/70 px-2 py-1.5">
                  <Inlines of={cell} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** A prompt or passage in its little mark-up. */
export function Passage({ text, className = '' }: { text: string; className?: string }) {
  const blocks = useMemo(() => parsePassage(text), [text]);
  return (
    <div className={className}>
      {blocks.map((block, i) => (
        <BlockView key={i} block={block} />
      ))}
    </div>
  );
}

/** One line of the same mark-up, for labels. */
export function PassageLine({ text }: { text: string }) {
  return <Inlines of={parseInlines(text)} />;
}
