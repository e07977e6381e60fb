import { createContext, useContext } from 'react';
import { useStore, type StoreApi } from 'zustand';
import type { Desk } from '../../core/journal/desk';
import type { AidSetting, Highlights } from '../../core/kit/notes';
import type { CandidatePaper } from '../../core/papers/candidatePaper';

/** What the aids know of the desk, and what they put down on it. */
export interface KitState {
  readonly paper: CandidatePaper;
  /** Of the question in view. */
  readonly index: number;
  readonly desk: Desk;
  readonly setAid: (name: string, change: AidSetting) => void;
  readonly setHighlights: (target: string, value: Highlights) => void;
  readonly setRoughWork: (place: 'text' | 'drawing', value: unknown) => void;
}

export type KitStore = Pick<StoreApi<KitState>, 'getState' | 'getInitialState' | 'subscribe'>;

export const KitContext = createContext<KitStore | null>(null);

export function useKitStore(): KitStore {
  const store = useContext(KitContext);
  if (!store) throw new Error('an aid stands outside the desk');
  return store;
}

/** A piece of what the aids know; the component is drawn again only when that piece changes. */
export const useKit = <T>(pick: (state: KitState) => T): T => useStore(useKitStore(), pick);
