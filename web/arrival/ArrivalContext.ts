import { createContext, useContext } from 'react';
import type { ArrivalView } from '../../core/arrival/api';

export interface ArrivalShell {
  readonly view: ArrivalView;
  readonly link: string;
  /** Takes the view that an act of the candidate led to. */
  readonly update: (view: ArrivalView) => void;
}

export const ArrivalContext = createContext<ArrivalShell | null>(null);

export function useArrival(): ArrivalShell {
  const shell = useContext(ArrivalContext);
  if (!shell) throw new Error('a step stands outside the arrival');
  return shell;
}
