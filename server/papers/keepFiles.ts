import { media } from '../db/schema';
import type { Services } from '../services';
import type { ImportedFile } from './readFile';

/** Keeps the files of a paper: their bytes, and what they are. */
export function keepFiles(
  { db, files }: Pick<Services, 'db' | 'files'>,
  kept: readonly ImportedFile[],
): void {
  for (const { facts, type, bytes } of kept) {
    files.store.keep(bytes);
    db.insert(media).values({ hash: facts.hash, type, bytes: bytes.length }).onConflictDoNothing().run();
  }
}
