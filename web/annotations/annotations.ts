import { createContext, useContext } from 'react';
import type { Anchor } from '../../core/marking/marginNote';

/** A margin note as it is drawn in its place. */
export interface ShownNote {
  readonly id: string;
  /** Shown behind what it is about; null for none. */
  readonly number: number | null;
  readonly anchor: Anchor;
  /** Whose it is, where notes of several people stand on one answer; 0 for the first. */
  readonly side: 0 | 1;
}

/** The notes on an answer; readings of kinds draw those that have their place in them. */
export interface Annotations {
  readonly notes: readonly ShownNote[];
  readonly active: string | null;
  /** A note was pressed. */
  readonly onActive?: (id: string) => void;
  /** A place was chosen for a new note; without it the answer is only read. */
  readonly onPlace?: (anchor: Anchor) => void;
}

export const noAnnotations: Annotations = { notes: [], active: null };
export const AnnotationsContext = createContext<Annotations>(noAnnotations);
export const useAnnotations = (): Annotations => useContext(AnnotationsContext);

/** Each side has a colour and a line of its own: nothing is told by colour alone. */
export const SIDE_LOOKS = [
  'bg-[#ffe9a8] decoration-[#b98500] decoration-solid',
  'bg-[#d8e8f7] decoration-[#2f5d8c] decoration-dotted',
] as const;
export const SIDE_LINES = ['border-solid border-[#b98500]', 'border-dotted border-[#2f5d8c]'] as const;
export const SIDE_STROKES = [
  { stroke: '#8a5a00', dash: undefined },
  { stroke: '#24507d', dash: '0.012 0.008' },
] as const;
