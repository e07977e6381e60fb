import { createHmac } from 'node:crypto';

/** Staff see the code from this long before the opening. */
export const DOOR_CODE_SHOWN_MS = 5 * 60_000;

/** The door code of a round: six digits, as “482 913”. It follows from the server's secret and is stored nowhere. */
export function doorCodeOf(secret: string, roundId: number): string {
  const bytes = createHmac('sha256', secret).update(`door ${roundId}`).digest();
  const digits = String(bytes.readUInt32BE(0) % 1_000_000).padStart(6, '0');
  return `${digits.slice(0, 3)} ${digits.slice(3)}`;
}

/** Spaces, dashes and points do not matter to a nervous person. */
const plain = (code: string) => code.normalize('NFKC').replace(/[\s.\-\u2010-\u2015]/g, '');

/** Can this be a door code at all? What cannot is no try. */
export const isDoorCode = (given: string): boolean => /^\d{6}$/.test(plain(given));

export const sameDoorCode = (given: string, code: string): boolean => plain(given) === plain(code);
