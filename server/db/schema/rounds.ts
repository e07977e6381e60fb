import { index, integer, primaryKey, sqliteTable, text, uniqueIndex } from 'drizzle-orm/sqlite-core';
import type { CheckResult } from '../../../core/arrival/checks';
import type { ExperienceAnswers } from '../../../core/experience/api';
import type { LetterFacts, NoticeTopic } from '../../../core/letters/letters';
import type { Arrangements, Role, RoundSettings } from '../../../core/rounds/api';
import { id, time } from './columns';
import { paperVersions } from './papers';
import { staff } from './staff';

/* Rounds, the people invited to them, their way in, what is said and sent to them, and their sealed media. */

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
    /** Made for somebody who asked for it: such links never take the place of those in invitations. */
    asked: integer('asked', { mode: 'boolean' }).notNull().default(false),
  },
  (t) => [index('links_of').on(t.invitationId)],
);

/** The code that shows the result of an invitation once to who reads its e-mail: the newest one. */
export const resultCodes = sqliteTable('result_codes', {
  invitationId: integer('invitation_id')
    .primaryKey()
    .references(() => invitations.id),
  /** SHA-256 of invitation and code. */
  hash: text('hash').notNull(),
  madeAt: time('made_at').notNull(),
  /** Wrong ones that were tried. */
  tries: integer('tries').notNull().default(0),
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
    /** When the candidate asked for this attempt; the first needs no asking. */
    begunAt: time('begun_at'),
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
    /** What is written to a candidate once only, however often its job is done; null for all else. */
    once: text('once').$type<NoticeTopic>(),
    at: time('at').notNull(),
    sentAt: time('sent_at'),
    trouble: text('trouble'),
  },
  (t) => [index('letters_of').on(t.invitationId), uniqueIndex('letters_once').on(t.invitationId, t.once)],
);
