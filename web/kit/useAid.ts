import { useCallback } from 'react';
import { createStore, useStore } from 'zustand';
import type { AidName } from '../../core/kit/aids';
import type { AidSetting } from '../../core/kit/notes';
import { useKit, type KitStore } from './KitContext';

/** The open panels in the order in which they were touched; of this page alone. */
const touched = createStore<{ readonly order: readonly string[] }>(() => ({ order: [] }));

/** Brings a panel before the others. */
export const raise = (id: string): void => {
  const { order } = touched.getState();
  if (order.at(-1) !== id) touched.setState({ order: [...order.filter((one) => one !== id), id] });
};

export const lastTouched = (open: readonly string[]): string | undefined =>
  touched.getState().order.findLast((id) => open.includes(id)) ?? open.at(-1);

/** The aid that was opened by a press just now: it takes the focus. After a reload the question keeps it. */
let opened: string | null = null;

export function takeOpened(id: string): boolean {
  const just = opened === id;
  if (just) opened = null;
  return just;
}

export const useDepth = (id: string): number => useStore(touched, (s) => s.order.indexOf(id) + 1);

export interface Aid {
  readonly open: boolean;
  readonly setting: AidSetting;
  readonly set: (change: AidSetting) => void;
  readonly close: () => void;
}

const NOTHING: AidSetting = {};

/** How an aid lies on the desk: kept in the journal, so that it is found again after a reload and on another device. */
export function useAid(id: string): Aid {
  const setting = useKit((s) => s.desk.aids[id] ?? NOTHING);
  const setAid = useKit((s) => s.setAid);
  const set = useCallback((change: AidSetting) => setAid(id, change), [setAid, id]);
  const close = useCallback(() => set({ open: false }), [set]);
  return { open: setting.open === true, setting, set, close };
}

/** A figure of a setting, or what it is at first. */
export const figureOf = (setting: AidSetting, name: string, first: number): number => {
  const value = setting[name];
  return typeof value === 'number' ? value : first;
};

/** Opens an aid, or closes it. A phone has room for one sheet. */
export function toggleAid(store: KitStore, id: string, narrow: boolean): void {
  const { desk, setAid } = store.getState();
  const open = desk.aids[id]?.open === true;
  if (!open && narrow)
    for (const [other, setting] of Object.entries(desk.aids))
      if (setting.open === true) setAid(other, { open: false });
  if (!open) raise(id);
  opened = open ? null : id;
  setAid(id, { open: !open });
}

/** The aids of the section that a question is in; no other can be opened, by whatever way. */
export const useAidsOf = (item: string): readonly AidName[] =>
  useKit((s) => {
    const { section } = s.paper.questions.find((one) => one.item === item)!;
    return s.paper.sections.find((one) => one.key === section)!.aids;
  });
