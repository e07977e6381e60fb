import { useEffect } from 'react';
import {
  withHighlight,
  withoutRange,
  QUOTE_LIMIT,
  HIGHLIGHTS_LIMIT,
  type Highlights,
  type Tint,
} from '../../core/kit/notes';
import { useKit, useKitStore } from './KitContext';
import { drawHighlights, keepDrawn } from './drawHighlights';
import { nameOf, textIn, type Stretch } from './textScopes';

const NONE: Highlights = {};

/** Draws the highlights of the desk as long as it is open. */
export function useDrawnHighlights(allowed: boolean): void {
  const store = useKitStore();
  const highlights = useKit((s) => s.desk.highlights);
  useEffect(() => {
    if (allowed) return keepDrawn(() => store.getState().desk.highlights);
    return undefined;
  }, [allowed, store]);
  useEffect(() => {
    if (allowed) drawHighlights(highlights);
  }, [allowed, highlights]);
}

/** Highlights a stretch of a text, or clears it. */
export function useHighlighting() {
  const all = useKit((s) => s.desk.highlights);
  const set = useKit((s) => s.setHighlights);
  const change = ({ root, start, end }: Stretch, tint: Tint | null): boolean => {
    const of = nameOf(root);
    if (!of) return false;
    const known = all[of.target] ?? NONE;
    const text = textIn(root);
    const textOf = (from: number, to: number) => text.slice(from, to);
    const before = known[of.name] ?? [];
    const quote = textOf(start, end).slice(0, QUOTE_LIMIT);
    const after =
      tint === null
        ? withoutRange(before, { start, end }, textOf)
        : withHighlight(before, { start, end, tint, quote }, textOf);
    if (after.length > HIGHLIGHTS_LIMIT) return false;
    set(of.target, { ...known, [of.name]: after });
    return true;
  };
  return { all, set, change };
}
