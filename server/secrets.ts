import { createHmac, hash, randomBytes, randomInt } from 'node:crypto';

/** 160 bits in the alphabet of addresses: cannot be guessed. */
export const newSecret = (): string => randomBytes(20).toString('base64url');

export const sha256 = (data: string | Uint8Array): string => hash('sha256', data, 'hex');

const SIGNS = 'ABCDEFGHJKLMNPQRSTVWXYZ23456789';

/** Eight signs in two groups that are easy to type, as “K7PM-3XQD”: 40 bits, for what lives some minutes. */
export const newCode = (): string => {
  const signs = Array.from({ length: 8 }, () => SIGNS[randomInt(SIGNS.length)]).join('');
  return `${signs.slice(0, 4)}-${signs.slice(4)}`;
};

/** A code as it was meant: without spaces and dashes, in capitals. */
export const plainCode = (typed: string): string =>
  typed
    .normalize('NFKC')
    .toUpperCase()
    .replace(/[^A-Z0-9]/g, '');

/** A short code for a script: tells nothing of the sitting to anyone who lacks the server's secret. */
export function scriptCode(secret: string, sittingKey: string, length = 8): string {
  const bytes = createHmac('sha256', secret).update(sittingKey).digest();
  return [...bytes.subarray(0, length)].map((byte) => SIGNS[byte % SIGNS.length]).join('');
}
