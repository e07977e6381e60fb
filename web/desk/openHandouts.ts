import { createStore } from 'zustand';

/** Where a panel lies on the desk, in CSS pixels. */
export interface Place {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

interface Panels {
  /** The open ones, the one that was touched last at the end. */
  readonly open: readonly string[];
  readonly places: Readonly<Record<string, Place>>;
}

const KEY = 'clear-sitting-panels';

/** Numbers only: nothing of a paper stays behind. */
function kept(): Panels {
  try {
    const found = JSON.parse(sessionStorage.getItem(KEY) ?? '') as Panels;
    if (Array.isArray(found.open) && typeof found.places === 'object') return found;
  } catch {
    // Nothing kept, or nothing that can be read.
  }
  return { open: [], places: {} };
}

/** Which handouts are open and where, by section and number (`A/0`); kept as long as this tab. */
export const openHandouts = createStore<Panels>(() => kept());
openHandouts.subscribe((state) => {
  try {
    sessionStorage.setItem(KEY, JSON.stringify(state));
  } catch {
    // Not allowed here: it is kept as long as the page.
  }
});

export const closeHandout = (id: string): void =>
  openHandouts.setState(({ open }) => ({ open: open.filter((one) => one !== id) }));

/** Opens it, or brings it before the others. */
export const raiseHandout = (id: string): void => {
  const { open } = openHandouts.getState();
  if (open.at(-1) !== id) openHandouts.setState({ open: [...open.filter((one) => one !== id), id] });
};

export const placeHandout = (id: string, place: Place): void =>
  openHandouts.setState(({ places }) => ({ places: { ...places, [id]: place } }));
