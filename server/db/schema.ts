import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { CheckResult } from '../../core/arrival/checks';
import type { EntryAbout, Standing } from '../../core/journal/entry';
import type { Score } from '../../core/kinds/contract';
import type { LevelsChosen } from '../../core/marking/rubricMark';
import type { FullPaper } from '../../core/papers/paper';
import type { Arrangements, Role, RoundSettings } from '../../core/rounds/api';
import type { ClosedBy } from '../../core/sittings/api';
import type { TimeEvent } from '../../core/timing/sittingTime';

const id = () => integer('id').primaryKey({ autoIncrement: true });
/** Milliseconds since 1970, by the server's clock. */
const time = (name: string) => integer(name);

export const settings = sqliteTable('settings', {
  key: text('key').primaryKey(),
  value: text('value').notNull(),
});

export const staff = sqliteTable('staff', {
  id: id(),
  email: text('email').notNull().unique(),
  name: text('name').notNull(),
  passwordHash: text('password_hash').notNull(),
  roles: text('roles', { mode: 'json' }).$type<Role[]>().notNull(),
});

export const staffSessions = sqliteTable('staff_sessions', {
  tokenHash: text('token_hash').primaryKey(),
  staffId: integer('staff_id')
    .notNull()
    .references(() => staff.id),
  expiresAt: time('expires_at').notNull(),
});

/** Published papers with the item versions they name: immutable, so stored as one document. */
export const papers = sqliteTable('papers', {
  id: id(),
  key: text('key').notNull(),
  version: integer('version').notNull(),
  document: text('document', { mode: 'json' }).$type<FullPaper>().notNull(),
});

export const rounds = sqliteTable('rounds', {
  id: id(),
  /** In the address of the round's own page, which needs no personal link. */
  key: text('key').notNull().unique(),
  title: text('title').notNull(),
  paperId: integer('paper_id')
    .notNull()
    .references(() => papers.id),
  opensAt: time('opens_at').notNull(),
  closesAt: time('closes_at').notNull(),
  timeZone: text('time_zone').notNull(),
  settings: text('settings', { mode: 'json' }).$type<RoundSettings>().notNull(),
  signedOffAt: time('signed_off_at'),
  signedOffBy: integer('signed_off_by').references(() => staff.id),
  releasedAt: time('released_at'),
});

export const candidates = sqliteTable('candidates', {
  id: id(),
  name: text('name').notNull(),
  email: text('email').notNull(),
  reference: text('reference').notNull().unique(),
});

export const invitations = sqliteTable('invitations', {
  id: id(),
  roundId: integer('round_id')
    .notNull()
    .references(() => rounds.id),
  candidateId: integer('candidate_id')
    .notNull()
    .references(() => candidates.id),
  /** SHA-256 of the secret in the link; the secret itself is never stored here. */
  linkHash: text('link_hash').notNull().unique(),
  extraPercent: integer('extra_percent').notNull(),
  /** Access arrangements beyond extra time. */
  arrangements: text('arrangements', { mode: 'json' }).$type<Arrangements>().notNull(),
  /** The candidate's own time zone, where it is known. */
  timeZone: text('time_zone'),
  invitedAt: time('invited_at').notNull(),
});

export const candidateSessions = sqliteTable('candidate_sessions', {
  tokenHash: text('token_hash').primaryKey(),
  invitationId: integer('invitation_id')
    .notNull()
    .references(() => invitations.id),
  createdAt: time('created_at').notNull(),
});

/** What was done on the way to one attempt. */
export const arrivals = sqliteTable(
  'arrivals',
  {
    invitationId: integer('invitation_id')
      .notNull()
      .references(() => invitations.id),
    attempt: integer('attempt').notNull(),
    detailsAt: time('details_at'),
    correction: text('correction'),
    correctionSettledAt: time('correction_settled_at'),
    checks: text('checks', { mode: 'json' }).$type<CheckResult[]>(),
    checksAt: time('checks_at'),
    pictureFile: text('picture_file'),
    pictureAt: time('picture_at'),
    identityFile: text('identity_file'),
    rulesVersion: text('rules_version'),
    rulesAt: time('rules_at'),
    waitingAt: time('waiting_at'),
    doorTries: integer('door_tries').notNull().default(0),
    admittedAt: time('admitted_at'),
    admittedBy: integer('admitted_by').references(() => staff.id),
  },
  (t) => [primaryKey({ columns: [t.invitationId, t.attempt] })],
);

export const sittings = sqliteTable(
  'sittings',
  {
    id: id(),
    invitationId: integer('invitation_id')
      .notNull()
      .references(() => invitations.id),
    attempt: integer('attempt').notNull(),
    /** Fixes the form: the same seed gives the same arrangement. */
    seed: text('seed').notNull(),
    /** What assessors see instead of a person. */
    script: text('script').notNull().unique(),
    startedAt: time('started_at'),
    deadlineAt: time('deadline_at'),
    closedAt: time('closed_at'),
    closedBy: text('closed_by').$type<ClosedBy>(),
    /** When the candidate handed in, where that reached the server only later. */
    handedInAt: time('handed_in_at'),
    receivedAt: time('received_at'),
    receiptHash: text('receipt_hash'),
    /** The opening of the desk that holds it. */
    holder: text('holder'),
    scoredAt: time('scored_at'),
  },
  (t) => [
    uniqueIndex('one_sitting_an_attempt').on(t.invitationId, t.attempt),
    index('sittings_open').on(t.closedAt, t.deadlineAt),
  ],
);

/** What happened to a sitting's time, append-only; `startedAt`, `deadlineAt` and `closedAt` above follow from it. */
export const timeEvents = sqliteTable(
  'time_events',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    at: time('at').notNull(),
    event: text('event', { mode: 'json' }).$type<TimeEvent>().notNull(),
    staffId: integer('staff_id').references(() => staff.id),
    reason: text('reason').notNull(),
  },
  (t) => [index('time_events_of').on(t.sittingId)],
);

/** Said between candidates and invigilators; without an invitation it went to all of a round. */
export const messages = sqliteTable(
  'messages',
  {
    id: id(),
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    invitationId: integer('invitation_id').references(() => invitations.id),
    /** Null where the candidate said it. */
    staffId: integer('staff_id').references(() => staff.id),
    at: time('at').notNull(),
    text: text('text').notNull(),
    /** A hand is raised until it is answered. */
    hand: integer('hand', { mode: 'boolean' }).notNull(),
    answeredAt: time('answered_at'),
  },
  (t) => [index('messages_of').on(t.invitationId), index('messages_in').on(t.roundId)],
);

/** Append-only. `arrival` is the order in which entries were made durable. */
export const journal = sqliteTable(
  'journal',
  {
    arrival: integer('arrival').primaryKey({ autoIncrement: true }),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    device: text('device').notNull(),
    seq: integer('seq').notNull(),
    about: text('about').$type<EntryAbout>().notNull(),
    target: text('target').notNull(),
    value: text('value').notNull(),
    clientAt: time('client_at').notNull(),
    serverAt: time('server_at').notNull(),
    standing: text('standing').$type<Standing>().notNull(),
  },
  (t) => [uniqueIndex('entry_once').on(t.sittingId, t.device, t.seq)],
);

/** Append-only: a new mark stands beside the old one, the newest counts. */
export const marks = sqliteTable(
  'marks',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    target: text('target').notNull(),
    /** Null: given by the machine. */
    staffId: integer('staff_id').references(() => staff.id),
    hundredths: integer('hundredths').notNull(),
    verdict: text('verdict').$type<Score['verdict']>(),
    reasons: text('reasons', { mode: 'json' }).$type<readonly string[]>().notNull(),
    levels: text('levels', { mode: 'json' }).$type<LevelsChosen>(),
    comment: text('comment').notNull(),
    at: time('at').notNull(),
  },
  (t) => [index('marks_of_sitting').on(t.sittingId)],
);

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
    assessorId: integer('assessor_id').references(() => staff.id),
    claimedAt: time('claimed_at'),
    doneAt: time('done_at'),
  },
  (t) => [
    uniqueIndex('one_task_a_part').on(t.sittingId, t.target),
    index('tasks_open').on(t.roundId, t.target, t.doneAt),
  ],
);

export const letters = sqliteTable('letters', {
  id: id(),
  invitationId: integer('invitation_id').references(() => invitations.id),
  to: text('to').notNull(),
  subject: text('subject').notNull(),
  text: text('text').notNull(),
  attachments: text('attachments', { mode: 'json' })
    .$type<{ name: string; type: string; content: string }[]>()
    .notNull(),
  at: time('at').notNull(),
  sentAt: time('sent_at'),
  trouble: text('trouble'),
});

export const jobs = sqliteTable(
  'jobs',
  {
    id: id(),
    kind: text('kind').notNull(),
    subject: integer('subject').notNull(),
    runAt: time('run_at').notNull(),
    attempts: integer('attempts').notNull().default(0),
    doneAt: time('done_at'),
    trouble: text('trouble'),
  },
  (t) => [index('jobs_due').on(t.doneAt, t.runAt)],
);

/** Who did what, for the record. */
export const actsOnRecord = sqliteTable(
  'acts_on_record',
  {
    id: id(),
    at: time('at').notNull(),
    staffId: integer('staff_id').references(() => staff.id),
    act: text('act').notNull(),
    subject: text('subject').notNull(),
    invitationId: integer('invitation_id').references(() => invitations.id),
    reason: text('reason').notNull().default(''),
  },
  (t) => [index('acts_concerning').on(t.invitationId)],
);
