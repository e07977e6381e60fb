import { createHmac, hash, randomBytes } from 'node:crypto';

/** 160 bits in the alphabet of addresses: cannot be guessed. */
export const newSecret = (): string => randomBytes(20).toString('base64url');

export const sha256 = (data: string | Uint8Array): string => hash('sha256', data, 'hex');

const SIGNS = 'ABCDEFGHJKLMNPQRSTVWXYZ23456789';

/** A short code for a script: tells nothing of the sitting to anyone who lacks the server's secret. */
export function scriptCode(secret: string, sittingKey: string, length = 8): string {
  const bytes = createHmac('sha256', secret).update(sittingKey).digest();
  return [...bytes.subarray(0, length)].map((byte) => SIGNS[byte % SIGNS.length]).join('');
}
