import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { PageState } from '../../../core/files/pages';
import type { EntryAbout, EntryRef } from '../../../core/journal/entry';
import type { ReceiptForm, ReceiptReason } from '../../../core/journal/receipt';
import type { DecisionChoice, DecisionFacts, DecisionKind } from '../../../core/rounds/decisions';
import type { ClosedBy } from '../../../core/sittings/api';
import type { TimeEvent } from '../../../core/timing/sittingTime';
import { id, time } from './columns';
import { paperVersions } from './papers';
import { invitations } from './rounds';
import { staff } from './staff';

/* Forms, sittings, and what candidates write in them. */

/** The form that a sitting was fixed in, as a document: a later change of the code does not change it. */
export const forms = sqliteTable('forms', {
  id: id(),
  /** SHA-256 of the canonical document. */
  hash: text('hash').notNull().unique(),
  paperVersionId: integer('paper_version_id')
    .notNull()
    .references(() => paperVersions.id),
  document: text('document', { mode: 'json' }).$type<unknown>().notNull(),
});

/** Sealed copies of a form: of the paper, and of each section with a limit of its own. */
export const sealedCopies = sqliteTable(
  'sealed_copies',
  {
    formId: integer('form_id')
      .notNull()
      .references(() => forms.id),
    /** The section's key; empty for the paper itself. */
    section: text('section').notNull(),
    /** SHA-256 of the sealed bytes. */
    hash: text('hash').notNull().unique(),
    /** AES-GCM, base64url. */
    key: text('key').notNull(),
    bytes: blob('bytes', { mode: 'buffer' }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.formId, t.section] })],
);

export const sittings = sqliteTable(
  'sittings',
  {
    id: id(),
    invitationId: integer('invitation_id')
      .notNull()
      .references(() => invitations.id),
    attempt: integer('attempt').notNull(),
    formId: integer('form_id')
      .notNull()
      .references(() => forms.id),
    /** What assessors see instead of a person. */
    script: text('script').notNull().unique(),
    /** What the candidate's devices call it; assessors know the script by its code, which candidates are not told. */
    deviceName: text('device_name').notNull().unique(),
    startedAt: time('started_at'),
    deadlineAt: time('deadline_at'),
    closedAt: time('closed_at'),
    closedBy: text('closed_by').$type<ClosedBy>(),
    /** When the device says it was handed in: shown to people, used for nothing. */
    claimedHandInAt: time('claimed_hand_in_at'),
    /** Nothing that counts can come any more, or could in time. */
    settledAt: time('settled_at'),
    scoredAt: time('scored_at'),
  },
  (t) => [
    uniqueIndex('one_sitting_an_attempt').on(t.invitationId, t.attempt),
    index('sittings_open').on(t.closedAt, t.deadlineAt),
  ],
);

/** The right of one browser store to write; the highest number of a sitting is the one that has it. */
export const holds = sqliteTable(
  'holds',
  {
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    number: integer('number').notNull(),
    /** Names this granting: a server restored from a backup may grant the same number again. */
    token: text('token').notNull(),
    grantedAt: time('granted_at').notNull(),
    /** What the browser says it is. */
    agent: text('agent').notNull(),
    /** The browser store that asked for it, by a name that it made up. */
    store: text('store').notNull(),
    /** The page that was last heard of, by a name that it made up. */
    opening: text('opening').notNull(),
    /** Entries 1 to `whole` are here without a gap, and this is their chain. */
    whole: integer('whole').notNull().default(0),
    chain: text('chain').notNull(),
    broken: integer('broken', { mode: 'boolean' }).notNull().default(false),
    /** How much was written through it: entries and heads, and the entries' text in bytes. */
    rows: integer('rows').notNull().default(0),
    bytes: integer('bytes').notNull().default(0),
  },
  (t) => [primaryKey({ columns: [t.sittingId, t.number] })],
);

/**
 * What devices said of how far they had written: one row for each number and chain, its first arrival and latest time.
 * The migration makes it WITHOUT ROWID by hand (the generator has no word for it): the rows are all key.
 */
export const heads = sqliteTable(
  'heads',
  {
    sittingId: integer('sitting_id').notNull(),
    hold: integer('hold').notNull(),
    number: integer('number').notNull(),
    chain: text('chain').notNull(),
    arrivedAt: time('arrived_at').notNull(),
    heard: integer('heard').notNull(),
    checked: integer('checked', { mode: 'boolean' }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.sittingId, t.hold, t.number, t.chain] })],
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

/** Entries as they came; rows are never changed. `arrival` is the order in which they were made durable. */
export const journal = sqliteTable(
  'journal',
  {
    arrival: integer('arrival').primaryKey({ autoIncrement: true }),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    hold: integer('hold').notNull(),
    number: integer('number').notNull(),
    /** 0, or more where other bytes came under a number that was taken. */
    variant: integer('variant').notNull(),
    about: text('about').$type<EntryAbout>().notNull(),
    target: text('target').notNull(),
    /** Canonical JSON of the whole value, or null. */
    value: text('value'),
    /** JSON of the patch, without its names, or null. */
    patch: text('patch'),
    /** JSON of the entry that was restored, or null. */
    restored: text('restored'),
    claimedAt: time('claimed_at').notNull(),
    arrivedAt: time('arrived_at').notNull(),
    /** A code why it is kept without counting; null for most. */
    aside: text('aside'),
  },
  (t) => [uniqueIndex('entry_once').on(t.sittingId, t.hold, t.number, t.variant)],
);

/** The current value of each slot of a desk, written in the same commit as the entry that gave it. */
export const currentAnswers = sqliteTable(
  'current_answers',
  {
    sittingId: integer('sitting_id').notNull(),
    about: text('about').$type<EntryAbout>().notNull(),
    target: text('target').notNull(),
    hold: integer('hold').notNull(),
    number: integer('number').notNull(),
    /** How many patches it stands on. */
    depth: integer('depth').notNull(),
    /** Canonical JSON. */
    value: text('value').notNull(),
  },
  (t) => [primaryKey({ columns: [t.sittingId, t.about, t.target] })],
);

/** Append-only: a receipt that a candidate was shown stays verifiable for ever. */
export const receipts = sqliteTable(
  'receipts',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    at: time('at').notNull(),
    hash: text('hash').notNull(),
    form: integer('form').$type<ReceiptForm>().notNull().default(1),
    reason: text('reason').$type<ReceiptReason>().notNull(),
    /** The entry that gave each part its value, by target. */
    sources: text('sources', { mode: 'json' }).$type<Readonly<Record<string, EntryRef>>>().notNull(),
  },
  (t) => [index('receipts_of').on(t.sittingId)],
);

/** Plays of a recording granted to devices, one at a time; `usedAt` once the device has said so. */
export const playGrants = sqliteTable(
  'play_grants',
  {
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    file: text('file').notNull(),
    number: integer('number').notNull(),
    hold: integer('hold').notNull(),
    grantedAt: time('granted_at').notNull(),
    usedAt: time('used_at'),
  },
  (t) => [primaryKey({ columns: [t.sittingId, t.file, t.number] })],
);

/** Plays that an invigilator has given back; who and why is in the audit. */
export const playReturns = sqliteTable(
  'play_returns',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    file: text('file').notNull(),
    at: time('at').notNull(),
  },
  (t) => [index('play_returns_of').on(t.sittingId)],
);

/** What only a coordinator can decide, and what was decided; the journal itself is never changed. */
export const decisions = sqliteTable(
  'decisions',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    kind: text('kind').$type<DecisionKind>().notNull(),
    /** The part it is about; empty where it is about the sitting. */
    target: text('target').notNull(),
    facts: text('facts', { mode: 'json' }).$type<DecisionFacts>().notNull(),
    openedAt: time('opened_at').notNull(),
    decidedAt: time('decided_at'),
    choice: text('choice').$type<DecisionChoice>(),
    staffId: integer('staff_id').references(() => staff.id),
    reason: text('reason').notNull().default(''),
  },
  (t) => [index('decisions_of').on(t.sittingId), index('decisions_open').on(t.decidedAt)],
);

/** Pages of answers whose bytes were begun to be sent: by the hash that the answer names. */
export const pages = sqliteTable(
  'pages',
  {
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    hash: text('hash').notNull(),
    bytes: integer('bytes').notNull(),
    /** So many from the beginning are durable. */
    held: integer('held').notNull(),
    state: text('state').$type<PageState>().notNull(),
    /** By its content; null until it is complete. */
    type: text('type'),
    /** What people see of it; null where that is the file itself. */
    view: text('view'),
    /** How often it came whole and could not be read. */
    tries: integer('tries').notNull(),
    completedAt: time('completed_at'),
    /** Complete only after the time for pages; it counts if a coordinator takes it. */
    late: integer('late', { mode: 'boolean' }).notNull(),
  },
  (t) => [primaryKey({ columns: [t.sittingId, t.hash] })],
);

/** Phones that candidates joined to their desk: each for one part, for some minutes. */
export const phones = sqliteTable(
  'phones',
  {
    id: id(),
    sittingId: integer('sitting_id')
      .notNull()
      .references(() => sittings.id),
    target: text('target').notNull(),
    /** Of the secret in the address that its QR code holds. */
    secretHash: text('secret_hash').notNull().unique(),
    /** Of the code that can be typed instead; null once it was used. */
    codeHash: text('code_hash'),
    until: time('until').notNull(),
    joinedAt: time('joined_at'),
    endedAt: time('ended_at'),
  },
  (t) => [index('phones_of').on(t.sittingId), index('phones_by_code').on(t.codeHash)],
);
