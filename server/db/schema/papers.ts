import { integer, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { ItemState } from '../../../core/papers/paper';
import { id } from './columns';

/* Items, papers and their media. */

/** An item of the bank: its key never changes. */
export const items = sqliteTable('items', { id: id(), key: text('key').notNull().unique() });

/** Versions of items, immutable. Documents are parsed when they are loaded. */
export const itemVersions = sqliteTable(
  'item_versions',
  {
    id: id(),
    itemId: integer('item_id')
      .notNull()
      .references(() => items.id),
    version: integer('version').notNull(),
    state: text('state').$type<ItemState>().notNull(),
    document: text('document', { mode: 'json' }).$type<unknown>().notNull(),
    /** SHA-256 of what an author's file said of it; null where it did not come from one. */
    source: text('source'),
  },
  (t) => [uniqueIndex('one_item_version').on(t.itemId, t.version)],
);

export const papers = sqliteTable('papers', { id: id(), key: text('key').notNull().unique() });

/** Media of published papers; their bytes lie in the folder of files under this hash. */
export const media = sqliteTable('media', {
  hash: text('hash').primaryKey(),
  type: text('type').notNull(),
  bytes: integer('bytes').notNull(),
});

/** Published papers, immutable; the document names the item versions. */
export const paperVersions = sqliteTable(
  'paper_versions',
  {
    id: id(),
    paperId: integer('paper_id')
      .notNull()
      .references(() => papers.id),
    version: integer('version').notNull(),
    document: text('document', { mode: 'json' }).$type<unknown>().notNull(),
  },
  (t) => [uniqueIndex('one_paper_version').on(t.paperId, t.version)],
);
