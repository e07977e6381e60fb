import type { ReactElement } from 'react';
import type { Block, Document, Inline, LinesNode, ListNode, TableNode } from '../../core/documents/document';
import { words } from '../words';
import { LazyNode } from './LazyNode';
import { Picture } from './Picture';

const t = words('documents', { line: 'Line {{number}}' });

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
        <span data-phrase={node.key}>
          <Inlines of={node.children} />
        </span>
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

const Inlines = ({ of }: { of: readonly Inline[] }) =>
  of.map((node, i) => <InlineView key={i} node={node} />);

function List({ ordered, start, items }: ListNode) {
  const Tag = ordered ? 'ol' : 'ul';
  return (
    <Tag
      dir="auto"
      start={ordered && start !== 1 ? start : undefined}
      className={`mb-3 space-y-1 ps-6 last:mb-0 ${ordered ? 'list-decimal' : 'list-disc'}`}
    >
      {items.map((item, i) => (
        <li key={i}>
          <Blocks of={item} />
        </li>
      ))}
    </Tag>
  );
}

function Table({ align, head, rows }: TableNode) {
  const style = (column: number) => ({ textAlign: align[column] ?? ('start' as const) });
  return (
    <div className="mb-3 overflow-x-auto last:mb-0" tabIndex={0}>
      <table className="w-full border-collapse font-sans text-[0.92em] tabular-nums">
        <thead>
          <tr>
            {head.map((cell, i) => (
              <th
                key={i}
                dir="auto"
                scope="col"
                style={style(i)}
                className="border-b border-line px-2 py-1.5 font-semibold text-soft"
              >
                <Inlines of={cell} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              {row.map((cell, k) => (
                <td key={k} dir="auto" style={style(k)} className="border-b border-line/70 px-2 py-1.5">
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

/** Each line stays one line, however it wraps, and can be named by its number. */
function Lines({ start, lines }: LinesNode) {
  const numbers = lines.map((_, i) => start + lines.slice(0, i).filter((line) => line.length > 0).length);
  return (
    <div className="mb-3 last:mb-0">
      {lines.map((line, i) =>
        line.length === 0 ? (
          <div key={i} className="h-3" />
        ) : (
          <div key={i} className="flex gap-3">
            <span
              aria-label={t('line', { number: numbers[i]! })}
              className="w-7 flex-none text-right font-sans text-[0.75em] leading-[2.1] text-soft tabular-nums select-none"
            >
              {numbers[i]}
            </span>
            <span dir="auto" className="min-w-0 flex-1">
              <Inlines of={line} />
            </span>
          </div>
        ),
      )}
    </div>
  );
}

const HEADING = { 1: 'text-[1.15em]', 2: 'text-[1.05em]', 3: 'text-[1em]' } as const;

function BlockView({ block }: { block: Block }): ReactElement {
  switch (block.type) {
    case 'paragraph':
      return (
        <p dir="auto" className="mb-3 last:mb-0">
          <Inlines of={block.children} />
        </p>
      );
    case 'heading': {
      // The page's own headings stand above these.
      const Tag = (['h3', 'h4', 'h5'] as const)[block.level - 1]!;
      return (
        <Tag dir="auto" className={`mt-4 mb-1.5 font-semibold first:mt-0 ${HEADING[block.level]}`}>
          <Inlines of={block.children} />
        </Tag>
      );
    }
    case 'list':
      return <List {...block} />;
    case 'quote':
      return (
        <blockquote className="mb-3 border-s-2 border-line ps-4 last:mb-0">
          <Blocks of={block.blocks} />
        </blockquote>
      );
    case 'table':
      return <Table {...block} />;
    case 'code':
      return (
        <pre
          tabIndex={0}
          className="mb-3 overflow-x-auto rounded bg-shade px-3 py-2 font-mono text-[0.85em] last:mb-0"
        >
          <code>{block.text}</code>
        </pre>
      );
    case 'formula':
      return <LazyNode type="formula" node={block} display />;
    case 'divider':
      return <hr className="my-4 border-line" />;
    case 'picture':
      return <Picture {...block} />;
    case 'lines':
      return <Lines {...block} />;
    case 'language':
      return (
        <div lang={block.lang} dir={block.dir} className="mb-3 last:mb-0">
          <Blocks of={block.blocks} />
        </div>
      );
  }
}

const Blocks = ({ of }: { of: readonly Block[] }) =>
  of.map((block, i) => <BlockView key={i} block={block} />);

/** A prompt, passage, mark scheme or rules text. */
export function DocumentView({ document, className = '' }: { document: Document; className?: string }) {
  return (
    <div className={className}>
      <Blocks of={document.blocks} />
    </div>
  );
}
