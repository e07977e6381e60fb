import { walked } from '../../validation/shapes';
import type { Rule } from '../../validation/walks';
import type { RichNode } from './richText';

/** No larger than anything a person writes: thousands of empty paragraphs would block the event loop. */
const MOST_NODES = 5_000;
const MOST_LEVELS = 12;
const MOST_CHARACTERS = 100_000;

const nodeTypes: readonly unknown[] = [
  'paragraph',
  'bulletList',
  'orderedList',
  'listItem',
  'text',
  'hardBreak',
] satisfies RichNode['type'][];
const markTypes: readonly unknown[] = ['bold', 'italic', 'underline'];

const isMark = (mark: unknown): boolean =>
  typeof mark === 'object' && mark !== null && markTypes.includes((mark as { readonly type?: unknown }).type);

const isWords = (text: unknown): boolean =>
  text === undefined || (typeof text === 'string' && text.length <= MOST_CHARACTERS);

interface Waiting {
  readonly node: unknown;
  readonly level: number;
}

/** Checks a node without its content, which is returned: null where something does not fit. */
function contentOf({ node, level }: Waiting): readonly unknown[] | null {
  if (typeof node !== 'object' || node === null || level > MOST_LEVELS) return null;
  const { type, text, marks, content } = node as Readonly<Record<string, unknown>>;
  if (level === 1 ? type !== 'doc' : !nodeTypes.includes(type)) return null;
  if (!isWords(text)) return null;
  if (marks !== undefined && !(Array.isArray(marks) && marks.every(isMark))) return null;
  if (content === undefined) return [];
  return Array.isArray(content) && content.length <= MOST_NODES ? content : null;
}

/** Walks a document node by node, without recursion: a device may nest it as deeply as it likes. */
const isRichText: Rule = (document) => {
  const waiting: Waiting[] = [{ node: document, level: 1 }];
  for (let nodes = 1; waiting.length > 0; nodes += 1) {
    const next = waiting.pop()!;
    const content = nodes > MOST_NODES ? null : contentOf(next);
    if (content === null) return `node ${nodes}`;
    for (const child of content) waiting.push({ node: child, level: next.level + 1 });
  }
  return null;
};

export const richTextSchema = walked<RichNode>(isRichText, 'formatted text');
