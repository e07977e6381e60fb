import { canonicalJson } from './canonicalJson';
import type { Digest } from './chain';

const ALPHABET = 'ABCDEFGHJKMNPQRSTVWXYZ0123456789'; // 32 signs; without I, L, O, U, which are misread

/** Why a receipt was made: the closing, late entries that counted, or a coordinator's decision. */
export type ReceiptReason = 'handed in' | 'late entries counted' | 'decision';

/** The hash of a receipt: SHA-256 (hex) over the canonical JSON of all current answers, by target. */
export const receiptHash = (answers: Readonly<Record<string, unknown>>, digest: Digest): string =>
  digest(canonicalJson(answers));

/** The first 60 bits of a SHA-256 (hex) as twelve signs in groups: what a person reads out on the phone. */
export function receiptCode(sha256Hex: string): string {
  let bits = BigInt(`0x${sha256Hex.slice(0, 15)}`);
  let code = '';
  for (let i = 0; i < 12; i++) {
    code = ALPHABET[Number(bits & 31n)]! + code;
    bits >>= 5n;
  }
  return code.replace(/(.{4})(?=.)/g, '$1-');
}
