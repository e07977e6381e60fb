import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import { id, time } from './columns';
import { invitations, rounds } from './rounds';
import { staff } from './staff';

/* What is made of results after their release. */

/** The PDF of a released result, made once; `sheet` is the hash of what it says. */
export const printedResults = sqliteTable('printed_results', {
  invitationId: integer('invitation_id')
    .primaryKey()
    .references(() => invitations.id),
  sheet: text('sheet').notNull(),
  file: text('file').notNull(),
});

/** A candidate who asks for a check of their result, and what came of it. */
export const resultChecks = sqliteTable(
  'result_checks',
  {
    id: id(),
    invitationId: integer('invitation_id')
      .notNull()
      .references(() => invitations.id),
    reason: text('reason').notNull(),
    askedAt: time('asked_at').notNull(),
    answer: text('answer'),
    /** Whether the marks were changed by it. */
    changed: integer('changed', { mode: 'boolean' }),
    answeredBy: integer('answered_by').references(() => staff.id),
    answeredAt: time('answered_at'),
  },
  (t) => [index('checks_of').on(t.invitationId)],
);

/** A ZIP of all scripts of a round with their marks, made by a job. */
export const packs = sqliteTable(
  'packs',
  {
    id: id(),
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    at: time('at').notNull(),
    /** Scripts that are in it, of how many. */
    done: integer('done').notNull(),
    of: integer('of').notNull(),
    cancelledAt: time('cancelled_at'),
    readyAt: time('ready_at'),
  },
  (t) => [index('packs_of').on(t.roundId)],
);
