import { createCipheriv, randomBytes } from 'node:crypto';
import { gzipSync } from 'node:zlib';
import { sha256 } from '../secrets';

export interface Sealed {
  /** SHA-256 of the sealed bytes, by which they are fetched and checked. */
  readonly hash: string;
  /** 256 bits, base64url. */
  readonly key: string;
  /** Initialisation vector (12 bytes), then what AES-GCM made of the packed text, with its tag. */
  readonly bytes: Buffer;
}

const IV_BYTES = 12;

/** Packs a document and encrypts it under a key of its own (AES-256-GCM), which is used for nothing else. */
export function seal(document: unknown): Sealed {
  const [key, iv] = [randomBytes(32), randomBytes(IV_BYTES)];
  const cipher = createCipheriv('aes-256-gcm', key, iv);
  const bytes = Buffer.concat([
    iv,
    cipher.update(gzipSync(JSON.stringify(document))),
    cipher.final(),
    cipher.getAuthTag(),
  ]);
  return { hash: sha256(bytes), key: key.toString('base64url'), bytes };
}
