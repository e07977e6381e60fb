import { writeSync } from 'node:fs';

/** Writes to a pipe until everything is written. */
export function writeAll(descriptor: number, bytes: Uint8Array): void {
  for (let at = 0; at < bytes.length;) at += writeSync(descriptor, bytes, at);
}
