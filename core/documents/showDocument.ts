import type { Block, Document, Inline, TableNode } from './document';

/** What a candidate's copy of a text has: sound or, by arrangement, its transcript; meanings where they are allowed. */
export interface ShownTerms {
  readonly transcripts: boolean;
  readonly meanings: boolean;
}

/** Without meanings a word stays, and what it means is not in the copy. */
const showInlines = (of: readonly Inline[], terms: ShownTerms): readonly Inline[] =>
  terms.meanings
    ? of
    : of.flatMap((node): readonly Inline[] => {
        if (node.type === 'meaning') return showInlines(node.children, terms);
        return 'children' in node ? [{ ...node, children: showInlines(node.children, terms) }] : [node];
      });

const showTable = (table: TableNode, terms: ShownTerms): TableNode => {
  const cells = (row: TableNode['head']) => row.map((cell) => showInlines(cell, terms));
  return { ...table, head: cells(table.head), rows: table.rows.map(cells) };
};

/** A block as one candidate may see it: what is said in a recording is not told to those who are to hear it. */
function showBlock(block: Block, terms: ShownTerms): Block {
  const inside = (blocks: readonly Block[]) => blocks.map((one) => showBlock(one, terms));
  switch (block.type) {
    case 'audio':
      return terms.transcripts
        ? { type: 'transcript', title: block.title, blocks: inside(block.transcript ?? []) }
        : { ...block, transcript: null };
    case 'list':
      return { ...block, items: block.items.map(inside) };
    case 'quote':
    case 'language':
    case 'transcript':
      return { ...block, blocks: inside(block.blocks) };
    case 'paragraph':
    case 'heading':
      return { ...block, children: showInlines(block.children, terms) };
    case 'table':
      return showTable(block, terms);
    case 'chart':
      return { ...block, table: showTable(block.table, terms) };
    case 'lines':
      return { ...block, lines: block.lines.map((line) => showInlines(line, terms)) };
    default:
      return block;
  }
}

/** A text as a candidate gets it. */
export const showDocument = (document: Document, terms: ShownTerms): Document => ({
  ...document,
  blocks: document.blocks.map((block) => showBlock(block, terms)),
});
