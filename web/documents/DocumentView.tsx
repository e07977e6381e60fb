import type { ReactElement } from 'react';
import type { Block, Document, LinesNode, ListNode } from '../../core/documents/document';
import { Inlines } from './Inlines';
import { LazyNode } from './LazyNode';
import { Picture } from './Picture';
import { Table } from './Table';
import { Transcript } from './Transcript';
import { t } from './words';

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
    case 'chart':
      return (
        <LazyNode type="chart" node={block} display>
          <Table {...block.table} />
        </LazyNode>
      );
    case 'audio':
    case 'video':
    case 'pdf':
      return <LazyNode type={block.type} node={block} display />;
    case 'transcript':
      return (
        <Transcript title={block.title}>
          <Blocks of={block.blocks} />
        </Transcript>
      );
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

/** What the highlights of a text are kept under: a question, source or section, and the text's own name. */
export interface TextName {
  readonly target: string;
  readonly name: string;
}

interface Props {
  readonly document: Document;
  readonly text?: TextName | undefined;
  readonly className?: string;
}

/** A prompt, passage, mark scheme or rules text. */
export function DocumentView({ document, text, className = '' }: Props) {
  return (
    <div className={className} data-text={text && `${text.target}|${text.name}`}>
      <Blocks of={document.blocks} />
    </div>
  );
}
