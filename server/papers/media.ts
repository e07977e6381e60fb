import { inArray } from 'drizzle-orm';
import type { Document } from '../../core/documents/document';
import { everyNode } from '../../core/documents/everyNode';
import type { Media } from '../../core/papers/candidatePaper';
import { media } from '../db/schema';
import type { Db } from '../db/open';
import type { FileStore } from '../files/fileStore';

/** Where papers and their pictures are. */
export interface WithFiles {
  readonly db: Db;
  readonly files: { readonly store: Pick<FileStore, 'read'> };
}

/** The pictures that some texts name, with their bytes: they travel, and are sealed, with the texts. */
export function mediaOf({ db, files }: WithFiles, texts: Iterable<Document>): Media {
  const hashes = new Set<string>();
  for (const text of texts)
    for (const [node] of everyNode(text)) if (node.type === 'picture') hashes.add(node.file);
  if (hashes.size === 0) return {};
  const rows = db
    .select()
    .from(media)
    .where(inArray(media.hash, [...hashes]))
    .all();
  return Object.fromEntries(
    rows.flatMap(({ hash, type }) => {
      const bytes = files.store.read(hash);
      return bytes ? [[hash, `data:${type};base64,${bytes.toString('base64')}`] as const] : [];
    }),
  );
}
