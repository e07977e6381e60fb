import { media } from '../db/schema';
import type { ImportedFile } from './readFile';
import type { HasDb } from '../db/open';
import type { HasFiles } from '../files/files';

/** Keeps the files of a paper: their bytes, and what they are. */
export function keepFiles({ db, files }: HasDb & HasFiles, kept: readonly ImportedFile[]): void {
  for (const { facts, type, bytes } of kept) {
    files.store.keep(bytes);
    db.insert(media).values({ hash: facts.hash, type, bytes: bytes.length }).onConflictDoNothing().run();
  }
}
