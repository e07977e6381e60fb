import { useAid } from './useAid';

/** What there are keys for, in the order in which candidates are told. */
export const DESK_KEYS = ['next', 'previous', 'kit', 'flag', 'last', 'clock', 'close'] as const;

/** Keys of one character. */
export const SINGLE_KEYS = [
  ['keys', '?'],
  ['kit', 'k'],
] as const;

/** Whether keys of one character do something; kept with the desk. */
export function useSingleKeys(): [boolean, (on: boolean) => void] {
  const { setting, set } = useAid('keys');
  return [setting.single !== false, (on) => set({ single: on })];
}
