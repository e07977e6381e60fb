import { normaliseText } from '../../text/compareText';
import type { GapsResponse } from './response';

export const filledIn = (response: GapsResponse, key: string): string => (response.filled[key] ?? '').trim();

export const isOneWord = (given: string): boolean =>
  !normaliseText(given, { ignoreCase: false, ignoreAccents: false }).includes(' ');
