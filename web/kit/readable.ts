import { readingsInView } from './textScopes';

/** A sentence of the page: its words, and where each piece of it stands. */
export interface Sentence {
  readonly text: string;
  readonly pieces: readonly {
    readonly node: Text;
    readonly from: number;
    readonly to: number;
    readonly at: number;
  }[];
}

const SKIPPED =
  'button, [role="button"], summary, select, textarea, [contenteditable="true"], [role="status"], [aria-hidden="true"], .katex, svg, [role="toolbar"], [data-slot]';
const BLOCKS = 'p, li, h1, h2, h3, h4, h5, td, th, label, div, section, legend, figcaption';

function textsOf(root: Element): Text[] {
  const walker = document.createTreeWalker(root, NodeFilter.SHOW_ELEMENT | NodeFilter.SHOW_TEXT, (node) => {
    if (!(node instanceof Element))
      return node.textContent?.trim() ? NodeFilter.FILTER_ACCEPT : NodeFilter.FILTER_SKIP;
    const phrase = node.hasAttribute('data-phrase');
    const hidden = (node.matches(SKIPPED) && !phrase) || node.getClientRects().length === 0;
    return hidden ? NodeFilter.FILTER_REJECT : NodeFilter.FILTER_SKIP;
  });
  const texts: Text[] = [];
  while (walker.nextNode()) texts.push(walker.currentNode as Text);
  return texts;
}

/** What stands in one block is read as one text, and cut into sentences. */
function sentencesOf(texts: readonly Text[]): Sentence[] {
  const text = texts.map((one) => one.data).join('');
  const segments = new Intl.Segmenter('en', { granularity: 'sentence' }).segment(text);
  return [...segments]
    .filter(({ segment }) => segment.trim() !== '')
    .map(({ segment, index }) => {
      let passed = 0;
      const pieces = texts.flatMap((node) => {
        const start = passed;
        passed += node.length;
        const [from, to] = [
          Math.max(index - start, 0),
          Math.min(index + segment.length - start, node.length),
        ];
        return from < to ? [{ node, from, to, at: Math.max(0, start + from - index) }] : [];
      });
      return { text: segment, pieces };
    });
}

/** Everything of the question in view that can be read, sentence by sentence: its source first. */
export function sentencesInView(): Sentence[] {
  const roots = readingsInView().sort((a, b) =>
    a.dataset.reading === b.dataset.reading ? 0 : a.dataset.reading === 'source' ? -1 : 1,
  );
  return roots.flatMap((root) => {
    const groups = new Map<Element | null, Text[]>();
    for (const node of textsOf(root)) {
      const block = node.parentElement?.closest(BLOCKS) ?? null;
      groups.set(block, [...(groups.get(block) ?? []), node]);
    }
    return [...groups.values()].flatMap(sentencesOf);
  });
}

/** The stretch of the page where a word of a sentence stands. */
export function wordRange({ pieces }: Sentence, start: number, length: number): Range | null {
  const [first, last] = [start, start + length - 1].map((at) =>
    pieces.find((piece) => at >= piece.at && at < piece.at + (piece.to - piece.from)),
  );
  if (!first || !last) return null;
  const range = document.createRange();
  range.setStart(first.node, first.from + (start - first.at));
  range.setEnd(last.node, last.from + (start + length - last.at));
  return range;
}

/** The number of the sentence at a place of the page; -1 where there is none. */
export const sentenceAt = (sentences: readonly Sentence[], node: Node, offset: number): number =>
  sentences.findIndex(({ pieces }) =>
    pieces.some((piece) => piece.node === node && offset >= piece.from && offset <= piece.to),
  );
