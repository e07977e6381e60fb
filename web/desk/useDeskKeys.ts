import { useContext, useEffect } from 'react';
import { useSingleKeys } from '../kit/singleKeys';
import { toggleAid } from '../kit/useAid';
import { DeskContext } from './DeskContext';
import { useNarrow } from '../ui/useNarrow';

const TYPED = 'input, textarea, select, [contenteditable=true], math-field, [role=application], .cm-editor';

const toKit = (): void => {
  document.querySelector<HTMLElement>('[data-kit] button')?.focus();
};

/** The keys of the desk, wherever the focus is; single ones only while nothing is typed. */
export function useDeskKeys(): void {
  const store = useContext(DeskContext)!;
  const [single] = useSingleKeys();
  const narrow = useNarrow();
  useEffect(() => {
    const acts = (): Readonly<Record<string, () => void>> => {
      const { index, go, toggleFlag, lookBack, toggleClock } = store.getState();
      return {
        'Alt PageDown': () => go(index + 1),
        'Alt PageUp': () => go(index - 1),
        F7: toKit,
        F8: toggleFlag,
        F9: lookBack,
        F10: toggleClock,
      };
    };
    const singles: Readonly<Record<string, () => void>> = {
      '?': () => toggleAid(store, 'keys', narrow),
      k: toKit,
    };
    const press = (event: KeyboardEvent) => {
      const typed = (event.target as Element | null)?.closest?.(TYPED);
      const plain = !event.ctrlKey && !event.metaKey && !event.altKey && !typed;
      const act =
        acts()[`${event.altKey ? 'Alt ' : ''}${event.key}`] ??
        (single && plain ? singles[event.key] : undefined);
      if (!act) return;
      event.preventDefault();
      act();
    };
    window.addEventListener('keydown', press);
    return () => window.removeEventListener('keydown', press);
  }, [store, single, narrow]);
}
