import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { Verdict } from '../../../core/kinds/contract';
import type { EvidenceFound } from '../../../core/kinds/evidence';
import type { PageType } from '../../../core/files/pages';
import type { MarginNote } from '../../../core/marking/marginNote';
import type {
  AsideReason,
  JudgementRole,
  MarkCause,
  MarkDraft,
  MarkRole,
  StandardUse,
} from '../../../core/marking/mark';
import type { GivenMark } from '../../../core/marking/marksGiven';
import type { Message } from '../../../core/messages/message';
import type { ScoringFailure } from '../../../core/scoring/scorePart';
import { id, time } from './columns';
import { rounds } from './rounds';
import { sittings } from './sittings';
import { staff } from './staff';

/* Evidence, marks, and the work of assessors and leads. */

/** What was found by running something, so that a rescore does not have to run it again. */
export const evidence = sqliteTable(
  'evidence',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    target: text('target').notNull(),
    /** Which request of the part. */
    request: text('request').notNull(),
    /** SHA-256 of what was run. */
    input: text('input').notNull(),
    document: text('document', { mode: 'json' }).$type<EvidenceFound>().notNull(),
    at: time('at').notNull(),
  },
  (t) => [index('evidence_of').on(t.sittingId, t.target)],
);

/**
 * Append-only: one person's marking of one response, with comment and margin notes. `first` and `second` are blind of each
 * other; `practice` and `standard` are of scripts with agreed marks, and count for no result.
 */
export const judgements = sqliteTable(
  'judgements',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    target: text('target').notNull(),
    role: text('role').$type<JudgementRole>().notNull(),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    given: text('given', { mode: 'json' }).$type<readonly GivenMark[]>().notNull(),
    comment: text('comment').notNull(),
    notes: text('notes', { mode: 'json' }).$type<readonly MarginNote[]>().notNull(),
    /** Why, where it is a decision over others. */
    reason: text('reason').notNull().default(''),
    /** SHA-256 of the response that was marked. */
    response: text('response').notNull(),
    at: time('at').notNull(),
  },
  (t) => [index('judgements_of').on(t.sittingId, t.target)],
);

/** Append-only: a new mark names the one that it supersedes. */
export const marks = sqliteTable(
  'marks',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    target: text('target').notNull(),
    component: text('component').notNull(),
    role: text('role').$type<MarkRole>().notNull(),
    cause: text('cause').$type<MarkCause>().notNull(),
    supersedes: integer('supersedes'),
    /** SHA-256 of the response that was marked. */
    response: text('response').notNull(),
    /** Null: given by the machine. */
    staffId: integer('staff_id').references(() => staff.id),
    judgementId: integer('judgement_id').references(() => judgements.id),
    hundredths: integer('hundredths').notNull(),
    verdict: text('verdict').$type<Verdict>(),
    reasons: text('reasons', { mode: 'json' }).$type<readonly Message[]>().notNull(),
    /** The level that people gave, where the component has levels. */
    level: integer('level'),
    /** The correction of a key that it follows from. */
    correctionId: integer('correction_id'),
    at: time('at').notNull(),
  },
  (t) => [
    index('marks_of_sitting').on(t.sittingId, t.target, t.component),
    index('marks_superseded').on(t.supersedes),
  ],
);

/** A response to be marked by one assessor; null until it is allocated. */
export const markingTasks = sqliteTable(
  'marking_tasks',
  {
    id: id(),
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    target: text('target').notNull(),
    role: text('role').$type<JudgementRole>().notNull(),
    /** Why the machine could not score the part, where people decide what it would have given. */
    failure: text('failure').$type<ScoringFailure>(),
    trouble: text('trouble').notNull().default(''),
    /** The components of the machine that it could not decide, by key: people decide those beside their own. */
    undecided: text('undecided', { mode: 'json' }).$type<readonly string[]>().notNull().default([]),
    /** SHA-256 of the response to be marked; another one reopens the task. */
    response: text('response').notNull(),
    assessorId: integer('assessor_id').references(() => staff.id),
    /** By which an assessor's own queue is in order: by chance, not by when papers were handed in. */
    position: integer('position').notNull(),
    /** A half-made mark. */
    draft: text('draft', { mode: 'json' }).$type<MarkDraft>(),
    judgementId: integer('judgement_id').references(() => judgements.id),
    doneAt: time('done_at'),
    /**
     * Of a script with agreed marks that was slipped in: what stood when the time for corrections ended. That is compared,
     * whatever is changed later; null while it is `judgementId`.
     */
    comparedId: integer('compared_id').references(() => judgements.id),
    /** When its assessor read how it compares. */
    toldAt: time('told_at'),
  },
  (t) => [
    index('tasks_of').on(t.sittingId, t.target),
    index('tasks_in').on(t.roundId, t.target, t.doneAt),
    index('tasks_queue').on(t.assessorId, t.roundId, t.target, t.doneAt, t.position),
  ],
);

/** Assessors who know whoever wrote a script: they get nothing of it any more. */
export const markingInterests = sqliteTable(
  'marking_interests',
  {
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    at: time('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.sittingId, t.staffId] })],
);

/** How an item of a round is marked; without a row it is marked once, with the usual tolerance. */
export const itemMarking = sqliteTable(
  'item_marking',
  {
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    target: text('target').notNull(),
    /** Share of scripts that is marked twice, 0 to 100. */
    doublePercent: integer('double_percent').notNull(),
    /** In hundredths of a mark. */
    tolerance: integer('tolerance').notNull(),
    /** One of so many scripts has an agreed mark. */
    standardEvery: integer('standard_every').notNull(),
    signedOffAt: time('signed_off_at'),
    signedOffBy: integer('signed_off_by').references(() => staff.id),
  },
  (t) => [primaryKey({ columns: [t.roundId, t.target] })],
);

/** Two marks further apart than the tolerance, until a lead settles them. */
export const gaps = sqliteTable(
  'gaps',
  {
    id: id(),
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    target: text('target').notNull(),
    first: integer('first_judgement')
      .notNull()
      .references(() => judgements.id),
    second: integer('second_judgement')
      .notNull()
      .references(() => judgements.id),
    openedAt: time('opened_at').notNull(),
    /** Settled, or closed because a mark was given again. */
    closedAt: time('closed_at'),
    settlement: integer('settlement').references(() => judgements.id),
  },
  (t) => [index('gaps_in').on(t.roundId, t.target, t.closedAt), index('gaps_of').on(t.sittingId, t.target)],
);

/** What an assessor cannot decide alone: with the lead until it is answered. */
export const setAsides = sqliteTable(
  'set_asides',
  {
    id: id(),
    taskId: integer('task_id')
      .notNull()
      .references(() => markingTasks.id),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    reason: text('reason').$type<AsideReason>().notNull(),
    note: text('note').notNull(),
    at: time('at').notNull(),
    answer: text('answer'),
    answeredBy: integer('answered_by').references(() => staff.id),
    answeredAt: time('answered_at'),
  },
  (t) => [index('asides_of').on(t.taskId)],
);

/**
 * What a lead says of a script as a whole, and a file that goes with it: the newest counts, and an empty one without a file
 * takes it back.
 */
export const overallComments = sqliteTable(
  'overall_comments',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    text: text('text').notNull(),
    /** SHA-256 of the file; null for none. */
    file: text('file'),
    fileType: text('file_type').$type<PageType>(),
    at: time('at').notNull(),
  },
  (t) => [index('overall_comments_of').on(t.sittingId)],
);

/** What a lead adds to the mark scheme of an item while it is marked. */
export const clarifications = sqliteTable(
  'clarifications',
  {
    id: id(),
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    target: text('target').notNull(),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    text: text('text').notNull(),
    at: time('at').notNull(),
  },
  (t) => [index('clarifications_of').on(t.roundId, t.target)],
);

export const clarificationReads = sqliteTable(
  'clarification_reads',
  {
    clarificationId: integer('clarification_id')
      .notNull()
      .references(() => clarifications.id),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    at: time('at').notNull(),
  },
  (t) => [primaryKey({ columns: [t.clarificationId, t.staffId] })],
);

/** Scripts with agreed marks: for practice before an assessor starts, or slipped in unseen. */
export const standards = sqliteTable(
  'standards',
  {
    id: id(),
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    target: text('target').notNull(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    use: text('use').$type<StandardUse>().notNull(),
    /** The agreed marks, by the lead. */
    judgementId: integer('judgement_id')
      .notNull()
      .references(() => judgements.id),
    at: time('at').notNull(),
  },
  (t) => [uniqueIndex('one_standard').on(t.roundId, t.target, t.sittingId)],
);

/** Assessors who get no more work: of one item while their marking is held, or of the round while they are absent. */
export const markingHolds = sqliteTable(
  'marking_holds',
  {
    id: id(),
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    /** Empty: of all items. */
    target: text('target').notNull(),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    reason: text('reason').notNull(),
    at: time('at').notNull(),
    endedAt: time('ended_at'),
  },
  (t) => [index('marking_holds_in').on(t.roundId)],
);

/** Comments that are used again: one's own, and those that are shared with everybody who marks in a round. */
export const phrases = sqliteTable(
  'phrases',
  {
    id: id(),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    shared: integer('shared', { mode: 'boolean' }).notNull(),
    /** In which it was kept; null for one of before this was noted, which nobody but its owner sees. */
    roundId: integer('round_id').references(() => rounds.id),
    text: text('text').notNull(),
  },
  (t) => [index('phrases_of').on(t.staffId)],
);
