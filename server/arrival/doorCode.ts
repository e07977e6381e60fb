import { createHmac } from 'node:crypto';

/** Staff see the code from this long before the opening. */
export const DOOR_CODE_SHOWN_MS = 5 * 60_000;

/** The door code of a round: six digits, as “482 913”. It follows from the server's secret and is stored nowhere. */
export function doorCodeOf(secret: string, roundId: number): string {
  const bytes = createHmac('sha256', secret).update(`door ${roundId}`).digest();
  const digits = String(bytes.readUInt32BE(0) % 1_000_000).padStart(6, '0');
  return `${digits.slice(0, 3)} ${digits.slice(3)}`;
}

const plain = (code: string) => code.replace(/\D/g, '');

/** Spaces and dashes do not matter to a nervous person. */
export const sameDoorCode = (given: string, code: string): boolean => plain(given) === plain(code);
