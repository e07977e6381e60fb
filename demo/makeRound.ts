import { eq } from 'drizzle-orm';
import { HoldWriter } from '../core/journal/holdWriter';
import { storeResponse } from '../core/kinds/stored';
import { allParts } from '../core/papers/paper';
import type { Random } from '../core/random';
import type { RoundSettings } from '../core/rounds/api';
import { MINUTE_MS } from '../core/timing/deadline';
import { findInvited, noteArrival } from '../server/candidates/queries';
import { rounds, roundStaff, sittings, staff } from '../server/db/schema';
import { fixForm } from '../server/forms/forms';
import { paperOfVersion } from '../server/papers/papers';
import { scriptCode, sha256 } from '../server/secrets';
import { JournalWriter } from '../server/sittings/journalWriter';
import { makeReceipt } from '../server/sittings/receipts';
import type { Wired } from '../server/wire';
import type { HasDb } from '../server/db/open';

const FIRST_ASSESSOR = 'tamsin.ebanks@example.org';

export const HOUR_MS = 60 * MINUTE_MS;
export const DAY_MS = 24 * HOUR_MS;

/** What the demo data is made with. */
export type Seeding = Pick<Wired, 'services' | 'outbox' | 'sittings'>;

const settings = (resultBy: number): RoundSettings => ({
  locale: 'en-GB',
  attemptsAllowed: 1,
  pauseMinutes: 0,
  forPractice: false,
  counts: 'latest',
  startRule: 'opening time',
  doorsMinutes: 30,
  openRehearsal: true,
  correctionsFirst: false,
  identityPicture: false,
  joinedPhones: true,
  checks: ['browser', 'screen', 'storage', 'clock', 'connection', 'camera'],
  keptDays: 60,
  help: 'If something does not work, call Bram Ostler at the archive, extension 31, from 08:00 to 20:00.',
  resultBy,
  questionnaire: true,
  release: 'after sign-off',
  releaseAt: null,
  sheet: 'key',
  checkDays: 14,
  withdrawn: 'scaled',
  marksMayFall: false,
  bandsAfterwards: false,
});

export interface RoundPlan {
  readonly key: string;
  readonly title: string;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly rules?: Partial<RoundSettings>;
  /** By address; the first assessor alone where nobody is named. */
  readonly assessors?: readonly string[];
}

export function addRound(
  { db }: HasDb,
  paperVersionId: number,
  { rules, assessors = [FIRST_ASSESSOR], ...plan }: RoundPlan,
): number {
  const values = {
    ...plan,
    paperVersionId,
    timeZone: 'Europe/London',
    settings: { ...settings(plan.closesAt + 4 * DAY_MS), ...rules },
  };
  const roundId = Number(db.insert(rounds).values(values).run().lastInsertRowid);
  // Everybody at the archive has their roles in every round; who marks is chosen.
  for (const { id: staffId, roles, email } of db.select().from(staff).all())
    for (const role of roles.filter((one) => one !== 'assessor' || assessors.includes(email)))
      db.insert(roundStaff).values({ roundId, staffId, role }).run();
  return roundId;
}

/** A script that is to be as a candidate would have left it. */
export interface PlannedScript {
  readonly invitationId: number;
  readonly startedAt: number;
  /** In the order in which they were given. */
  readonly answers: readonly { readonly target: string; readonly response: unknown }[];
  readonly random: Random;
}

/** A script as a candidate would have left it: started, written entry by entry, handed in, and settled. */
export function addScript(
  { services, sittings: operations }: Seeding,
  { invitationId, startedAt, answers, random }: PlannedScript,
): number {
  const { db, secret, time } = services;
  const closedAt = startedAt + Math.round((0.6 + random() * 0.39) * 60 * MINUTE_MS);
  const good = {
    detailsAt: startedAt - 9e5,
    checksAt: startedAt - 6e5,
    pictureAt: startedAt - 4e5,
    rulesAt: startedAt - 3e5,
  };
  noteArrival(db, invitationId, 1, { ...good, checks: [], rulesVersion: '2026-10' });
  const { round } = findInvited(db, invitationId)!;
  const formId = fixForm(db, round.paperVersionId, {
    seed: `demo-${invitationId}`,
    locale: round.settings.locale,
    transcripts: false,
    aids: [],
  });
  const script = scriptCode(secret, `${invitationId}/1`);
  const { id } = db
    .insert(sittings)
    .values({ invitationId, attempt: 1, formId, script, deviceName: `seeded-${invitationId}` })
    .returning()
    .get();
  time.record(id, { type: 'started', at: startedAt });
  const hold = operations.holds.grant(id, { store: 'demo', opening: 'demo', agent: 'demo' }, startedAt);
  const device = new HoldWriter({ hold: hold.number, token: hold.chain.token }, sha256);
  const paper = paperOfVersion(db, round.paperVersionId);
  const writer = new JournalWriter(db, operations.holds);
  time.record(id, { type: 'confirmed', at: startedAt, heard: startedAt });
  const kinds = new Map(allParts(paper).map(({ target, part }) => [target, part.kind]));
  answers.forEach(({ target, response }, i) => {
    const value = storeResponse(kinds.get(target)!, response);
    const at = Math.round(startedAt + ((closedAt - startedAt) * (i + 1)) / (answers.length + 1));
    const entry = device.append({ about: 'answer', target, value, at });
    const meeting = { sitting: id, formId, paper, time: time.of(id), hold, now: at };
    writer.write(meeting, { head: device.head(at - 1000), entries: [entry] });
  });
  time.record(id, { type: 'closed', at: closedAt, by: 'candidate' });
  makeReceipt(db, id, { at: closedAt, reason: 'handed in' });
  db.update(sittings).set({ settledAt: closedAt }).where(eq(sittings.id, id)).run();
  return id;
}
