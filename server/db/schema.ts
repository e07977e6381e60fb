import type { ExperienceAnswers } from '../../core/experience/api';
import { blob, index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { CheckResult } from '../../core/arrival/checks';
import type { PageState } from '../../core/files/pages';
import type { FilePurpose } from '../../core/files/purpose';
import type { EntryAbout, EntryRef } from '../../core/journal/entry';
import type { ReceiptReason } from '../../core/journal/receipt';
import type { LetterFacts } from '../../core/letters/letters';
import type { Verdict } from '../../core/kinds/contract';
import type { EvidenceFound } from '../../core/kinds/evidence';
import type { Message } from '../../core/messages/message';
import type { ScoringFailure } from '../../core/scoring/scorePart';
import type {
  AsideReason,
  JudgementRole,
  MarkCause,
  MarkDraft,
  MarkRole,
  StandardUse,
} from '../../core/marking/mark';
import type { MarginNote } from '../../core/marking/marginNote';
import type { GivenMark } from '../../core/marking/marksGiven';
import type { ObservationFacts, ObservationKind } from '../../core/observations/observation';
import type { SittingVerdict, Weight } from '../../core/observations/review';
import type { ItemState } from '../../core/papers/paper';
import type { DecisionChoice, DecisionFacts, DecisionKind } from '../../core/rounds/decisions';
import type { Arrangements, Role, RoundSettings } from '../../core/rounds/api';
import type { ClosedBy } from '../../core/sittings/api';
import type { TimeEvent } from '../../core/timing/sittingTime';
import type { JobState } from '../../core/jobs/api';

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
  seenAt: time('seen_at').notNull(),
});

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

/** What candidates say of a test: kept by round alone, apart from their scripts and without their names. */
export const experience = sqliteTable(
  'experience',
  {
    id: id(),
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    answers: text('answers', { mode: 'json' }).$type<ExperienceAnswers['answers']>().notNull(),
    comment: text('comment').notNull(),
  },
  (t) => [index('experience_of').on(t.roundId)],
);

/** Media of published papers; their bytes lie in the folder of files under this hash. */
export const media = sqliteTable('media', {
  hash: text('hash').primaryKey(),
  type: text('type').notNull(),
  bytes: integer('bytes').notNull(),
});

/** Under which a round's media are sealed; a section with a limit of its own has a key of its own. */
export const mediaKeys = sqliteTable(
  'media_keys',
  {
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    section: text('section').notNull(),
    key: text('key').notNull(),
  },
  (t) => [primaryKey({ columns: [t.roundId, t.section] })],
);

/** A file of media as a round's candidates fetch it; its sealed bytes lie in the folder of files under `hash`. */
export const sealedMedia = sqliteTable(
  'sealed_media',
  {
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    file: text('file').notNull(),
    section: text('section').notNull(),
    name: text('name').notNull(),
    hash: text('hash').notNull(),
    bytes: integer('bytes').notNull(),
  },
  (t) => [primaryKey({ columns: [t.roundId, t.file] })],
);

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

export const rounds = sqliteTable('rounds', {
  id: id(),
  /** In the address of the round's own page, which needs no personal link. */
  key: text('key').notNull().unique(),
  title: text('title').notNull(),
  paperVersionId: integer('paper_version_id')
    .notNull()
    .references(() => paperVersions.id),
  opensAt: time('opens_at').notNull(),
  closesAt: time('closes_at').notNull(),
  timeZone: text('time_zone').notNull(),
  settings: text('settings', { mode: 'json' }).$type<RoundSettings>().notNull(),
  signedOffAt: time('signed_off_at'),
  signedOffBy: integer('signed_off_by').references(() => staff.id),
  releasedAt: time('released_at'),
  /** From when its candidates can practise with the real questions; null until a coordinator releases them. */
  practiceAt: time('practice_at'),
});

/** Who has which role in which round. */
export const roundStaff = sqliteTable(
  'round_staff',
  {
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    role: text('role').$type<Role>().notNull(),
  },
  (t) => [primaryKey({ columns: [t.roundId, t.staffId, t.role] }), index('rounds_of_staff').on(t.staffId)],
);

/** Candidates, each with a reference number of their own; one may be invited to any number of rounds. */
export const people = sqliteTable(
  'people',
  {
    id: id(),
    name: text('name').notNull(),
    email: text('email').notNull(),
    reference: text('reference').notNull().unique(),
  },
  (t) => [index('people_by_email').on(t.email)],
);

export const invitations = sqliteTable(
  'invitations',
  {
    id: id(),
    roundId: integer('round_id')
      .notNull()
      .references(() => rounds.id),
    personId: integer('person_id')
      .notNull()
      .references(() => people.id),
    extraPercent: integer('extra_percent').notNull(),
    /** Access arrangements beyond extra time. */
    arrangements: text('arrangements', { mode: 'json' }).$type<Arrangements>().notNull(),
    /** The candidate's own time zone, where it is known. */
    timeZone: text('time_zone'),
    invitedAt: time('invited_at').notNull(),
    /** When this candidate answered the questionnaire; what they said is kept apart. */
    questionnaireAt: time('questionnaire_at'),
  },
  (t) => [
    uniqueIndex('one_invitation_a_round').on(t.roundId, t.personId),
    index('invitations_of').on(t.personId),
  ],
);

/** Secret links that lead to an invitation; the secrets themselves stand in the letters alone. */
export const links = sqliteTable(
  'links',
  {
    id: id(),
    invitationId: integer('invitation_id')
      .notNull()
      .references(() => invitations.id),
    /** SHA-256 of the secret. */
    hash: text('hash').notNull().unique(),
    madeAt: time('made_at').notNull(),
  },
  (t) => [index('links_of').on(t.invitationId)],
);

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
    pictureAt: time('picture_at'),
    /** When the picture of an identity document was taken, where the round asks for one. */
    identityAt: time('identity_at'),
    rulesVersion: text('rules_version'),
    rulesAt: time('rules_at'),
    waitingAt: time('waiting_at'),
    doorTries: integer('door_tries').notNull().default(0),
    admittedAt: time('admitted_at'),
    admittedBy: integer('admitted_by').references(() => staff.id),
  },
  (t) => [primaryKey({ columns: [t.invitationId, t.attempt] })],
);

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
    /** SHA-256 of the response to be marked; another one reopens the task. */
    response: text('response').notNull(),
    assessorId: integer('assessor_id').references(() => staff.id),
    /** By which an assessor's own queue is in order: by chance, not by when papers were handed in. */
    position: integer('position').notNull(),
    /** A half-made mark. */
    draft: text('draft', { mode: 'json' }).$type<MarkDraft>(),
    judgementId: integer('judgement_id').references(() => judgements.id),
    doneAt: time('done_at'),
  },
  (t) => [
    index('tasks_of').on(t.sittingId, t.target),
    index('tasks_in').on(t.roundId, t.target, t.doneAt),
    index('tasks_queue').on(t.assessorId, t.roundId, t.target, t.doneAt, t.position),
  ],
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
    /** Settled, or closed because a mark was given anew. */
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

/** What a lead says of a script as a whole; the newest counts, and an empty one takes it back. */
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

/** Comments that are used again: one's own, and those that are shared with everybody. */
export const phrases = sqliteTable(
  'phrases',
  {
    id: id(),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    shared: integer('shared', { mode: 'boolean' }).notNull(),
    text: text('text').notNull(),
  },
  (t) => [index('phrases_of').on(t.staffId)],
);

/** An answer that was accepted after publication: beside the immutable version, from then on and for all scripts. */
export const keyCorrections = sqliteTable(
  'key_corrections',
  {
    id: id(),
    item: text('item').notNull(),
    version: integer('version').notNull(),
    part: text('part').notNull(),
    component: text('component').notNull(),
    answer: text('answer').notNull(),
    staffId: integer('staff_id')
      .notNull()
      .references(() => staff.id),
    reason: text('reason').notNull(),
    at: time('at').notNull(),
    /** Scripts that were scored anew, of how many; null until the job has begun. */
    done: integer('done').notNull().default(0),
    of: integer('of'),
    finishedAt: time('finished_at'),
  },
  (t) => [index('corrections_of').on(t.item, t.version)],
);

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
    until: time('until').notNull(),
    joinedAt: time('joined_at'),
    endedAt: time('ended_at'),
  },
  (t) => [index('phones_of').on(t.sittingId)],
);

export const letters = sqliteTable(
  'letters',
  {
    id: id(),
    invitationId: integer('invitation_id')
      .notNull()
      .references(() => invitations.id),
    to: text('to').notNull(),
    /** What it says, as values; its words are made when it is sent or opened. */
    facts: text('facts', { mode: 'json' }).$type<LetterFacts>().notNull(),
    at: time('at').notNull(),
    sentAt: time('sent_at'),
    trouble: text('trouble'),
  },
  (t) => [index('letters_of').on(t.invitationId)],
);

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
