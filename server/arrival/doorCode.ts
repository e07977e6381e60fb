import { createHmac } from 'node:crypto';
import { sixDigits } from '../sixDigits';

/** Staff see the code from this long before the opening. */
export const DOOR_CODE_SHOWN_MS = 5 * 60_000;

/** The door code of a round: six digits, as “482 913”. It follows from the server's secret and is stored nowhere. */
export const doorCodeOf = (secret: string, roundId: number): string =>
  sixDigits(createHmac('sha256', secret).update(`door ${roundId}`).digest().readUInt32BE(0));
