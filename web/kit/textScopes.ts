import type { TextName } from '../documents/DocumentView';

/*
 * Texts that can be highlighted carry `data-text`: what their highlights are kept under, and their own name, as
 * `source-key|tab-0`. Places are counted in characters of what the page shows; formulas, pictures and what only aids for
 * the eye need are left out, since they are drawn later than the words around them.
 */

const APART = 'figure, svg, math, .katex, .sr-only, [aria-hidden="true"], .select-none, audio, video';

export function nameOf(root: Element): TextName | null {
  const [target, name] = (root.getAttribute('data-text') ?? '').split('|');
  return target && name ? { target, name } : null;
}

export const textRootOf = (node: Node | null): HTMLElement | null =>
  (node instanceof Element ? node : node?.parentElement)?.closest<HTMLElement>('[data-text]') ?? null;

/** The pieces of text of an element that count, in their order. */
export function piecesOf(root: Element): Text[] {
  const walker = document.createTreeWalker(root, NodeFilter.SHOW_ELEMENT | NodeFilter.SHOW_TEXT, (node) =>
    node instanceof Element
      ? node.matches(APART)
        ? NodeFilter.FILTER_REJECT
        : NodeFilter.FILTER_SKIP
      : NodeFilter.FILTER_ACCEPT,
  );
  const pieces: Text[] = [];
  while (walker.nextNode()) pieces.push(walker.currentNode as Text);
  return pieces;
}

export const textIn = (root: Element): string =>
  piecesOf(root)
    .map((piece) => piece.data)
    .join('');

/** The stretch of the page from one character to another; null where the text is shorter. */
export function rangeIn(root: Element, start: number, end: number): Range | null {
  const range = document.createRange();
  let [passed, begun] = [0, false];
  for (const piece of piecesOf(root)) {
    const next = passed + piece.length;
    if (!begun && start < next) {
      range.setStart(piece, start - passed);
      begun = true;
    }
    if (begun && end <= next) {
      range.setEnd(piece, end - passed);
      return range;
    }
    passed = next;
  }
  return null;
}

export interface Stretch {
  readonly root: HTMLElement;
  readonly start: number;
  readonly end: number;
}

/** Where a selection lies in a text, in characters of its pieces; null where it is empty or outside. */
export function stretchIn(
  root: Element,
  range: Range,
): { readonly start: number; readonly end: number } | null {
  let [passed, start, end] = [0, -1, -1];
  for (const piece of piecesOf(root)) {
    if (range.intersectsNode(piece)) {
      const from = piece === range.startContainer ? range.startOffset : 0;
      const to = piece === range.endContainer ? range.endOffset : piece.length;
      if (start < 0) start = passed + from;
      end = passed + to;
    }
    passed += piece.length;
  }
  return start >= 0 && end > start ? { start, end } : null;
}

/** Where a selection lies in one text; null where it is empty or reaches over several. */
export function stretchOf(range: Range): Stretch | null {
  const root = textRootOf(range.startContainer);
  if (!root || range.collapsed) return null;
  const found = stretchIn(root, range);
  return found && { root, ...found };
}

/** The element of the question in view that is read: its source where it has one, or the question itself. */
export function readingsInView(): HTMLElement[] {
  return [...document.querySelectorAll<HTMLElement>('[data-reading]')].filter(
    (one) =>
      one.closest('[inert]') === null &&
      // Asked first: for the box of what is out of sight, a whole sheet would be laid out.
      one.checkVisibility({ visibilityProperty: true, contentVisibilityAuto: true }) &&
      one.getClientRects().length > 0,
  );
}

/** The texts in view that can be highlighted, in their order. */
export const textsInView = (): HTMLElement[] =>
  [...document.querySelectorAll<HTMLElement>('[data-text]')].filter((one) =>
    one.checkVisibility({ visibilityProperty: true, contentVisibilityAuto: true }),
  );
