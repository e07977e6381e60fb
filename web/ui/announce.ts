import { createStore } from 'zustand';

interface Said {
  readonly turn: number;
  readonly text: string;
}

/** So many stay on the page; older ones have been read out. */
const KEPT = 3;

export const said = createStore<{ readonly all: readonly Said[] }>(() => ({ all: [] }));

/** Says something to people who listen, and shows it to nobody else; the same words twice are said twice. */
export function announce(text: string): void {
  if (text === '') return;
  const { all } = said.getState();
  said.setState({ all: [...all, { turn: (all.at(-1)?.turn ?? 0) + 1, text }].slice(-KEPT) });
}
