import { createContext, useContext } from 'react';
import type { ArrivalView } from '../../core/arrival/api';
import type { LiveView } from '../../core/live/api';

export interface ArrivalShell {
  readonly view: ArrivalView;
  readonly link: string;
  /** What changes by itself while one arrives; null until the first has come. */
  readonly live: LiveView | null;
  /** Takes the view that an act of the candidate led to. */
  readonly update: (view: ArrivalView) => void;
}

export const ArrivalContext = createContext<ArrivalShell | null>(null);

export function useArrival(): ArrivalShell {
  const shell = useContext(ArrivalContext);
  if (!shell) throw new Error('a step stands outside the arrival');
  return shell;
}
