/**
 * Rich text as a tree of a few allowed nodes, never as HTML: what is not in this list cannot be stored, so nothing
 * stored can run. The shape is the document JSON of ProseMirror, narrowed.
 */
export interface RichNode {
  readonly type: 'doc' | 'paragraph' | 'bulletList' | 'orderedList' | 'listItem' | 'text' | 'hardBreak';
  readonly text?: string;
  readonly marks?: readonly { readonly type: 'bold' | 'italic' | 'underline' }[];
  readonly content?: readonly RichNode[];
}

export const emptyRich: RichNode = { type: 'doc', content: [] };

export function richAsText(node: RichNode, prefix = ''): string {
  if (node.type === 'text') return node.text ?? '';
  if (node.type === 'hardBreak') return '\n';
  const children = node.content ?? [];
  if (node.type === 'paragraph') return children.map((c) => richAsText(c)).join('');
  if (node.type === 'bulletList' || node.type === 'orderedList')
    return children
      .map((item, i) => richAsText(item, node.type === 'bulletList' ? '– ' : `${i + 1}. `))
      .join('\n');
  return prefix + children.map((c) => richAsText(c)).join('\n');
}

/** The words alone, a paragraph a line: without the numbers and dashes of lists, which nobody wrote. */
export function textAlone(node: RichNode): string {
  if (node.type === 'text') return node.text ?? '';
  if (node.type === 'hardBreak') return '\n';
  const children = (node.content ?? []).map(textAlone);
  return children.join(node.type === 'paragraph' ? '' : '\n');
}

export const wordsOf = (node: RichNode): number => countWords(textAlone(node));

/** The same words as plain paragraphs, for fields that take no more: bold goes, items of lists become lines. */
export function withoutFormat(document: RichNode): RichNode {
  const paragraphs = textAlone(document).split('\n');
  return {
    type: 'doc',
    content: paragraphs.map((text) => ({
      type: 'paragraph',
      ...(text === '' ? {} : { content: [{ type: 'text', text }] }),
    })),
  };
}

/** Scripts that put no spaces between words: a dictionary tells where each ends. */
const WITHOUT_SPACES =
  /[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Thai}\p{Script=Lao}\p{Script=Khmer}\p{Script=Myanmar}]/u;
const segmenter = new Intl.Segmenter('und', { granularity: 'word' });

/**
 * Words as runs of letters or digits with inner hyphens and apostrophes: “re-sown” is one, “14 °C” is two. Text in
 * scripts without spaces is parted by the rules of Unicode (UAX #29), which take longer.
 */
export function countWords(text: string): number {
  if (WITHOUT_SPACES.test(text)) return [...segmenter.segment(text)].filter((one) => one.isWordLike).length;
  return text.match(/[\p{L}\p{N}°][\p{L}\p{M}\p{N}°]*(?:['’\-–][\p{L}\p{M}\p{N}]+)*/gu)?.length ?? 0;
}
