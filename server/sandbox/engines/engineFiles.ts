import { createHash } from 'node:crypto';
import { readFileSync } from 'node:fs';

/** Names and SHA-256 of everything in the box's folder, as it was built. */
export const MANIFEST = 'manifest.json';

export const hashOf = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex');

/** A file of the box's folder, by its name. */
export type ReadFile = (name: string) => Buffer<ArrayBuffer>;

/** Reads files of the box's folder; one that is not as it was built is not used. */
export function engineFiles(folder: string): ReadFile {
  const manifest = JSON.parse(readFileSync(`${folder}/${MANIFEST}`, 'utf8')) as Record<string, string>;
  return (name) => {
    const bytes = readFileSync(`${folder}/${name}`);
    if (hashOf(bytes) !== manifest[name]) throw new Error(`the engine file ${name} is damaged`);
    return bytes;
  };
}
