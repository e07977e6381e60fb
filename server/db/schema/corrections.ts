import { index, integer, primaryKey, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { KeyChange } from '../../../core/corrections/change';
import type { Band } from '../../../core/results/bands';
import { id, time } from './columns';
import { invitations, rounds } from './rounds';
import { staff } from './staff';

/* What is put right after questions were asked, and bands. */

/**
 * A correction of a part of a published item version: beside the immutable version, for all scripts. A key counts from then
 * on; a ruling once it is finished, as what released results keep is known then. Rows are never changed but by their job.
 */
export const keyCorrections = sqliteTable(
  'key_corrections',
  {
    id: id(),
    item: text('item').notNull(),
    version: integer('version').notNull(),
    part: text('part').notNull(),
    /** What is corrected; null where an earlier correction is taken back. */
    change: text('change', { mode: 'json' }).$type<KeyChange>(),
    takesBack: integer('takes_back'),
    /** From which round it was made. */
    roundId: integer('round_id').references(() => rounds.id),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    reason: text('reason').notNull(),
    at: time('at').notNull(),
    /** Scripts that were scored again, of how many; null until the job has begun. */
    done: integer('done').notNull().default(0),
    of: integer('of'),
    finishedAt: time('finished_at'),
  },
  (t) => [index('corrections_of').on(t.item, t.version)],
);

/** A result that a correction moved: from which total to which, and what it may not fall below; null where it may. */
export const correctionChanges = sqliteTable(
  'correction_changes',
  {
    correctionId: integer('correction_id')
      .notNull()
      .references(() => keyCorrections.id),
    invitationId: integer('invitation_id')
      .notNull()
      .references(() => invitations.id),
    before: integer('before').notNull(),
    after: integer('after').notNull(),
    kept: integer('kept'),
    bandBefore: text('band_before'),
    bandAfter: text('band_after'),
    /** When its candidate was written to; null where the result was not out, or nothing changed for them. */
    toldAt: time('told_at'),
  },
  (t) => [
    primaryKey({ columns: [t.correctionId, t.invitationId] }),
    index('correction_changes_of').on(t.invitationId),
  ],
);

/** The bands of a round, as a lead has set them: the newest row stands. `of` is the maximum that they were set for. */
export const roundBands = sqliteTable('round_bands', {
  id: id(),
  roundId: integer('round_id')
    .notNull()
    .references(() => rounds.id),
  bands: text('bands', { mode: 'json' }).$type<readonly Band[]>().notNull(),
  of: integer('of').notNull(),
  staffId: integer('staff_id')
    .notNull()
    .references(() => staff.id),
  reason: text('reason').notNull(),
  at: time('at').notNull(),
});
