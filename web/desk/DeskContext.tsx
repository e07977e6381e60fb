import { createContext, useContext, type ReactNode } from 'react';
import { useStore, type StoreApi } from 'zustand';
import { KitContext } from '../kit/KitContext';
import type { DeskState } from './deskStore';

export const DeskContext = createContext<StoreApi<DeskState> | null>(null);

/** A piece of the desk's state; the component is drawn again only when that piece changes. */
export function useDesk<T>(pick: (state: DeskState) => T): T {
  const store = useContext(DeskContext);
  if (!store) throw new Error('a part of the desk stands outside the desk');
  return useStore(store, pick);
}

/** Everything that stands at a desk, its aids included. */
export const AtDesk = ({
  store,
  children,
}: {
  readonly store: StoreApi<DeskState>;
  readonly children: ReactNode;
}) => (
  <DeskContext value={store}>
    <KitContext value={store}>{children}</KitContext>
  </DeskContext>
);
