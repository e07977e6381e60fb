import { document as catalogue } from '../messages/documents.en';
import { message, type Say } from '../messages/message';
import { words } from '../messages/words';
import type { Block, Document, Inline, LinesNode, ListNode, TableNode } from './document';

words('document', catalogue);

/** A formula as it is read aloud. */
const formulaText = ({ tex, says }: { readonly tex: string; readonly says: string | null }) => says ?? tex;

function inlineText(node: Inline): string {
  switch (node.type) {
    case 'text':
    case 'code':
      return node.text;
    case 'break':
      return '\n';
    case 'formula':
      return formulaText(node);
    case 'meaning':
      return `${inlineAsText(node.children)} (${node.says})`;
    default:
      return inlineAsText(node.children);
  }
}

export const inlineAsText = (inlines: readonly Inline[]): string => inlines.map(inlineText).join('');

function listAsText({ ordered, start, items }: ListNode, say: Say): string {
  const mark = (index: number) => (ordered ? `${start + index}. ` : '– ');
  return items.map((item, i) => mark(i) + blocksAsText(item, say).replaceAll('\n', '\n  ')).join('\n');
}

const tableAsText = ({ head, rows }: TableNode): string =>
  [head, ...rows].map((row) => row.map(inlineAsText).join(' · ')).join('\n');

function linesAsText({ start, lines }: LinesNode): string {
  let number = start;
  return lines.map((line) => (line.length === 0 ? '' : `${number++}  ${inlineAsText(line)}`)).join('\n');
}

function blockAsText(block: Block, say: Say): string {
  switch (block.type) {
    case 'paragraph':
    case 'heading':
      return inlineAsText(block.children);
    case 'list':
      return listAsText(block, say);
    case 'quote':
    case 'language':
      return blocksAsText(block.blocks, say);
    case 'table':
      return tableAsText(block);
    case 'chart':
      return [
        say(message('document.chart', { title: block.title, description: block.description })),
        tableAsText(block.table),
      ].join('\n');
    case 'audio':
      return [
        say(message('document.recording', { title: block.title })),
        blocksAsText(block.transcript ?? [], say),
      ]
        .filter(Boolean)
        .join('\n');
    case 'transcript':
      return [
        say(message('document.transcript', { title: block.title })),
        blocksAsText(block.blocks, say),
      ].join('\n');
    case 'video':
      return say(message('document.video', { title: block.title, description: block.description }));
    case 'pdf':
      return say(message('document.pdf', { title: block.title, pages: block.pages }));
    case 'code':
      return block.text;
    case 'formula':
      return formulaText(block);
    case 'divider':
      return '—';
    case 'picture':
      return [say(message('document.picture', { description: block.description })), block.caption ?? '']
        .filter(Boolean)
        .join('\n');
    case 'lines':
      return linesAsText(block);
  }
}

const blocksAsText = (blocks: readonly Block[], say: Say): string =>
  blocks.map((block) => blockAsText(block, say)).join('\n\n');

/** A document for printouts and for people who cannot see it: every node has its form in plain text. */
export const documentAsText = (document: Document, say: Say): string => blocksAsText(document.blocks, say);
