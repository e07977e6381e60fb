import { useSyncExternalStore } from 'react';

const query = window.matchMedia('(max-width: 899px)');

const subscribe = (changed: () => void) => {
  query.addEventListener('change', changed);
  return () => query.removeEventListener('change', changed);
};

/** Below 900 px source and answer, and brief, program and cases, become tabs. */
export const useNarrow = (): boolean => useSyncExternalStore(subscribe, () => query.matches);
