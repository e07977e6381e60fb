import { readdirSync, readFileSync } from 'node:fs';
import path from 'node:path';
import { readFile, type ImportedFile } from '../server/papers/readFile';

const FILES = path.join(import.meta.dirname, 'media/files');

/** The recordings, films, pictures and documents of the demo, by their names. */
export async function demoFiles(): Promise<ReadonlyMap<string, ImportedFile>> {
  const files = new Map<string, ImportedFile>();
  for (const name of readdirSync(FILES)) {
    const read = await readFile(name, readFileSync(path.join(FILES, name)));
    if (!read) throw new Error(`${name} cannot be read`);
    files.set(name, read);
  }
  return files;
}
