import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { FilePurpose } from '../../../core/files/purpose';
import type { JobState } from '../../../core/jobs/api';
import { id, time } from './columns';
import { invitations } from './rounds';

/* Files, what they are used for, and jobs. */

/** Files by the SHA-256 of their content: the same bytes are kept once. */
export const files = sqliteTable('files', {
  hash: text('hash').primaryKey(),
  type: text('type').notNull(),
  bytes: integer('bytes').notNull(),
  at: time('at').notNull(),
});

/** What a file is used for; the bytes go when the last use has ended. */
export const fileUses = sqliteTable(
  'file_uses',
  {
    id: id(),
    hash: text('hash')
      .notNull()
      .references(() => files.hash),
    invitationId: integer('invitation_id')
      .notNull()
      .references(() => invitations.id),
    attempt: integer('attempt').notNull(),
    purpose: text('purpose').$type<FilePurpose>().notNull(),
    at: time('at').notNull(),
    /** Null: as long as the answers themselves. */
    keepUntil: time('keep_until'),
    endedAt: time('ended_at'),
  },
  (t) => [index('file_uses_of').on(t.invitationId, t.purpose), index('file_uses_by').on(t.hash)],
);

/** A job that failed too often is failed, not done: staff see it and can run it again. */
export const jobs = sqliteTable(
  'jobs',
  {
    id: id(),
    kind: text('kind').notNull(),
    subject: integer('subject').notNull(),
    state: text('state').$type<JobState>().notNull().default('waiting'),
    runAt: time('run_at').notNull(),
    attempts: integer('attempts').notNull().default(0),
    doneAt: time('done_at'),
    trouble: text('trouble'),
  },
  (t) => [index('jobs_due').on(t.state, t.runAt), index('jobs_about').on(t.kind, t.subject)],
);
