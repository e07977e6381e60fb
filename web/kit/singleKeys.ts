import { useAid } from './useAid';

/** As they are told to candidates. */
export const DESK_KEYS = [
  ['next', 'Alt + Page Down'],
  ['previous', 'Alt + Page Up'],
  ['kit', 'F7'],
  ['flag', 'F8'],
  ['last', 'F9'],
  ['clock', 'F10'],
  ['close', 'Esc'],
] as const;

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
