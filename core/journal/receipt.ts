import { canonicalJson } from './canonicalJson';
import type { Digest } from './chain';

const ALPHABET = 'ABCDEFGHJKMNPQRSTVWXYZ0123456789'; // 32 signs; without I, L, O, U, which are misread

/** Why a receipt was made: the closing, late entries that counted, or a coordinator's decision. */
export type ReceiptReason = 'handed in' | 'late entries counted' | 'decision';

/**
 * What a receipt proves: 1 – the answers alone, as receipts did until December 2026; 2 – the answers of one sitting, so that
 * equal papers have receipts of their own.
 */
export type ReceiptForm = 1 | 2;
export const RECEIPT_FORM: ReceiptForm = 2;

/** What a receipt is of: the sitting's name as its devices know it, and the canonical JSON of its answers by target. */
export interface ReceiptOf {
  readonly sitting: string;
  readonly answers: string;
}

/** The hash of a receipt: SHA-256 (hex) over canonical JSON. */
export const receiptHash = (form: ReceiptForm, { sitting, answers }: ReceiptOf, digest: Digest): string =>
  digest(form === 1 ? answers : `{"answers":${answers},"sitting":${canonicalJson(sitting)}}`);

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
