import { useSyncExternalStore } from 'react';

/** The layout of a laptop needs this many pixels at the usual size of text, and more where the text is larger. */
const WIDE = 900;
/** Below this height the head and the foot would leave too little of the window: the desk is longer than it, and scrolls. */
const LOW = 420;

let scale = 1;
const told = new Set<() => void>();

const isNarrow = (): boolean => window.innerWidth / scale < WIDE;

/** The style sheet knows it by an attribute: a media query cannot see how large the text is (`desk:` in class names). */
function settle(): void {
  const { documentElement } = document;
  documentElement.toggleAttribute('data-low', window.innerHeight / scale < LOW);
  const wide = !isNarrow();
  if (documentElement.hasAttribute('data-wide') === wide) return;
  documentElement.toggleAttribute('data-wide', wide);
  for (const changed of told) changed();
}
window.addEventListener('resize', settle);
settle();

/** Sets the size of all text, 1 for the usual one: what is large needs the layout of a narrower window. */
export function scaleText(size: number): void {
  scale = size;
  document.documentElement.style.setProperty('--text-scale', String(size));
  settle();
}

const subscribe = (changed: () => void) => {
  told.add(changed);
  return () => told.delete(changed);
};

/** Where there is little room source and answer, and brief, program and cases, become tabs. */
export const useNarrow = (): boolean => useSyncExternalStore(subscribe, isNarrow);
