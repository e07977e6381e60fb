import { createContext, useContext } from 'react';
import { useStore, type StoreApi } from 'zustand';
import type { DeskState } from './deskStore';

export const DeskContext = createContext<StoreApi<DeskState> | null>(null);

/** A piece of the desk's state; the component is drawn again only when that piece changes. */
export function useDesk<T>(pick: (state: DeskState) => T): T {
  const store = useContext(DeskContext);
  if (!store) throw new Error('a part of the desk stands outside the desk');
  return useStore(store, pick);
}
