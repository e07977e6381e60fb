import { useSyncExternalStore } from 'react';
import { localVoice } from './voices';

/** Browsers tell of their voices some time after the page is there. */
function subscribe(changed: () => void): () => void {
  if (typeof speechSynthesis === 'undefined') return () => undefined;
  speechSynthesis.addEventListener('voiceschanged', changed);
  return () => speechSynthesis.removeEventListener('voiceschanged', changed);
}

/** Whether this device can read aloud with a voice of its own. */
export const useHasVoice = (): boolean => useSyncExternalStore(subscribe, () => localVoice('en') !== null);
