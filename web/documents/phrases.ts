import { createContext } from 'react';

/** How a part of a question uses the phrases that are marked in its source. */
export interface PhraseUse {
  /** `choose`: pressed on and off. `pick`: taken up, to be put down in the answer. */
  readonly how: 'choose' | 'pick';
  /** Which are chosen, or in the hand. */
  readonly chosen: ReadonlySet<string>;
  /** A phrase was pressed: by pointer, by touch, by Enter or the space bar. */
  readonly onPress: (name: string) => void;
  /** A phrase was dragged and let go over this element; absent where phrases are only pressed. */
  readonly onDrop?: (name: string, at: Element | null) => void;
}

/** Of the part that works with the source now; null where none does, and phrases are words like others. */
export const PhrasesInUse = createContext<PhraseUse | null>(null);
