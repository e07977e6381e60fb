import type { Highlights } from '../../core/kit/notes';
import { tints } from '../../core/kit/notes';
import { nameOf, rangeIn } from './textScopes';

/** Browsers without it keep the list of highlights, and draw none. */
export const canDraw = (): boolean => typeof CSS !== 'undefined' && 'highlights' in CSS;

/** Draws all highlights over the texts of the page, without a change of the page itself. */
export function drawHighlights(all: Readonly<Record<string, Highlights>>): void {
  if (!canDraw()) return;
  const ranges = new Map(tints.map((tint) => [tint, [] as Range[]]));
  for (const root of document.querySelectorAll('[data-text]')) {
    const of = nameOf(root);
    for (const { start, end, tint } of (of && all[of.target]?.[of.name]) ?? []) {
      const range = rangeIn(root, start, end);
      if (range) ranges.get(tint)!.push(range);
    }
  }
  for (const [tint, own] of ranges) CSS.highlights.set(tint, new Highlight(...own));
}

const DRAW_AFTER_MS = 60;

/** Draws them again whenever texts have come or gone; gives how to end it. */
export function keepDrawn(highlights: () => Readonly<Record<string, Highlights>>): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const soon = () => {
    clearTimeout(timer);
    timer = setTimeout(() => drawHighlights(highlights()), DRAW_AFTER_MS);
  };
  const observer = new MutationObserver((changes) => {
    const texts = changes.some(({ addedNodes }) =>
      [...addedNodes].some(
        (node) =>
          node instanceof Element && (node.closest('[data-text]') ?? node.querySelector('[data-text]')),
      ),
    );
    if (texts) soon();
  });
  observer.observe(document.body, { childList: true, subtree: true });
  drawHighlights(highlights());
  return () => {
    clearTimeout(timer);
    observer.disconnect();
    if (canDraw()) for (const tint of tints) CSS.highlights.delete(tint);
  };
}
