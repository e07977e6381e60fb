import { useMemo } from 'react';
import { toolsFor, type Tool } from '../kit/tools';
import { useAidsOf } from '../kit/useAid';
import { useDesk } from './DeskContext';

/** The aids of the section in view. */
export const useAids = () => useAidsOf(useDesk((s) => s.paper.questions[s.index]!.item));

export function useTools(): Tool[] {
  const aids = useAids();
  return useMemo(() => toolsFor(aids), [aids]);
}
