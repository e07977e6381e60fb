import { useSyncExternalStore } from 'react';
import type { PageBox } from './pageBox';

/** Draws again when something of the pages has changed. */
export const useBox = (box: PageBox): number => useSyncExternalStore(box.subscribe, () => box.version);
