import { index, integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { ObservationFacts, ObservationKind } from '../../../core/observations/observation';
import type { SittingVerdict, Weight } from '../../../core/observations/review';
import { id, time } from './columns';
import { invitations } from './rounds';
import { sittings } from './sittings';
import { staff } from './staff';

/* What was noted of a sitting, what people make of it, and who did what. */

/** Facts noted during a sitting. Each row's hash includes that of the row before, so that a missing one shows. */
export const observations = sqliteTable(
  'observations',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    kind: text('kind').$type<ObservationKind>().notNull(),
    from: time('from_at').notNull(),
    to: time('to_at').notNull(),
    facts: text('facts', { mode: 'json' }).$type<ObservationFacts>().notNull(),
    hash: text('hash').notNull(),
  },
  (t) => [index('observations_of').on(t.sittingId)],
);

/** How a person weighs an observation; the newest stands. */
export const weighings = sqliteTable(
  'weighings',
  {
    id: id(),
    observationId: integer('observation_id')
      .notNull()
      .references(() => observations.id),
    weight: text('weight').$type<Weight>().notNull(),
    reason: text('reason').notNull(),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    at: time('at').notNull(),
  },
  (t) => [index('weighings_of').on(t.observationId)],
);

/** What a candidate is asked about a sitting, and what they say. */
export const explanations = sqliteTable(
  'explanations',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    observationId: integer('observation_id').references(() => observations.id),
    question: text('question').notNull(),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    askedAt: time('asked_at').notNull(),
    answer: text('answer'),
    answeredAt: time('answered_at'),
  },
  (t) => [index('explanations_of').on(t.sittingId)],
);

/** What is decided on a sitting after its review; `void` takes effect once a second person agrees. */
export const verdicts = sqliteTable(
  'verdicts',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    verdict: text('verdict').$type<SittingVerdict>().notNull(),
    reason: text('reason').notNull(),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    at: time('at').notNull(),
    agreedBy: integer('agreed_by').references(() => staff.id),
    agreedAt: time('agreed_at'),
    /** Taken back before it took effect, or replaced by another. */
    endedAt: time('ended_at'),
  },
  (t) => [index('verdicts_of').on(t.sittingId)],
);

/** Who did what, for the record. */
export const audit = sqliteTable(
  'audit',
  {
    id: id(),
    at: time('at').notNull(),
    staffId: integer('staff_id').references(() => staff.id),
    act: text('act').notNull(),
    subject: text('subject').notNull(),
    invitationId: integer('invitation_id').references(() => invitations.id),
    reason: text('reason').notNull().default(''),
  },
  (t) => [index('audit_of').on(t.invitationId, t.act)],
);
