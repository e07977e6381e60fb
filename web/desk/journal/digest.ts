import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';
import CRC32 from 'crc-32';
import type { CheckSum } from '../../../core/journal/patch';

/** SHA-256 in hex. At once, unlike the browser's own: entries are numbered and chained in one turn. */
export const digest = (text: string): string => bytesToHex(sha256(new TextEncoder().encode(text)));

export const digestOfBytes = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));

export const checkSum: CheckSum = (text) =>
  (CRC32.buf(new TextEncoder().encode(text)) >>> 0).toString(16).padStart(8, '0');
