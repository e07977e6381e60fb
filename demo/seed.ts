import { eq } from 'drizzle-orm';
import { storeResponse } from '../core/kinds/stored';
import { allParts } from '../core/papers/paper';
import { HoldWriter } from '../core/journal/holdWriter';
import { seededRandom, type Random } from '../core/random';
import { MINUTE_MS } from '../core/timing/deadline';
import { noArrangements, type RoundSettings } from '../core/rounds/api';
import { addStaff } from '../server/accounts/accounts';
import { markingTasks, rounds, roundStaff, sittings, staff } from '../server/db/schema';
import { fixForm } from '../server/forms/forms';
import { scriptCode, sha256 } from '../server/secrets';
import { allocateRound } from '../server/marking/allocation';
import { giveMark } from '../server/marking/give';
import { signOff } from '../server/marking/signOff';
import { scoreSitting } from '../server/marking/scoreJob';
import { findInvited, noteArrival } from '../server/candidates/queries';
import { keepFiles } from '../server/papers/keepFiles';
import { paperOfVersion, publishPaper } from '../server/papers/papers';
import { release } from '../server/results/release';
import { invite } from '../server/rounds/operations';
import type { Services } from '../server/services';
import { JournalWriter } from '../server/sittings/journalWriter';
import { makeReceipt } from '../server/sittings/receipts';
import type { Wired } from '../server/wire';
import { simulateAnswers } from './answers';
import { fieldSchoolPaper } from './fieldSchoolPaper';
import * as people from './people';
import { demoFiles } from './files';
import { galleryPaper, rehearsalPaper } from './rehearsalPaper';
import { technicianPaper } from './technicianPaper';

const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

const settings = (resultBy: number): RoundSettings => ({
  locale: 'en-GB',
  attemptsAllowed: 1,
  counts: 'latest',
  startRule: 'opening time',
  doorsMinutes: 30,
  openRehearsal: true,
  correctionsFirst: false,
  identityPicture: false,
  joinedPhones: true,
  checks: ['browser', 'screen', 'storage', 'clock', 'connection', 'camera'],
  recorded: 'One picture, taken before you start and kept for 60 days. No film and no sound.',
  keptDays: 60,
  help: 'If something does not work, call the archive: Bram Ostler, extension 31, from eight to eight.',
  resultBy,
  questionnaire: true,
  release: 'after sign-off',
  releaseAt: null,
  sheet: 'key',
  checkDays: 14,
});

interface RoundPlan {
  readonly key: string;
  readonly title: string;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly rules?: Partial<RoundSettings>;
}

function addRound({ db }: Services, paperVersionId: number, { rules, ...plan }: RoundPlan): number {
  const values = {
    ...plan,
    paperVersionId,
    timeZone: 'Europe/London',
    settings: { ...settings(plan.closesAt + 4 * DAY_MS), ...rules },
  };
  const roundId = Number(db.insert(rounds).values(values).run().lastInsertRowid);
  // Everybody at the archive has their roles in every round.
  for (const { id: staffId, roles } of db.select().from(staff).all())
    for (const role of roles) db.insert(roundStaff).values({ roundId, staffId, role }).run();
  return roundId;
}

/** A script as a candidate would have left it: started, written entry by entry, handed in, and settled. */
function addScript(
  { services, sittings: operations }: Seeding,
  { invitationId, startedAt, ability, random }: Planned,
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
  const answers = simulateAnswers(ability, random);
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

const COMMENTS = [
  'Facts and cause are exact; say what should happen first.',
  'The night is told clearly. Name the rule that explains the two counts.',
  'Give the times and the lots: a reader of the book was not there.',
];

/** October as it would have gone: everything marked, signed off and released. */
async function finishRound(
  { services, outbox }: Seeding,
  roundId: number,
  scripts: readonly number[],
  random: Random,
): Promise<void> {
  const { db } = services;
  for (const script of scripts) await scoreSitting(services, script, { last: false });
  const byEmail = (email: string) => db.select().from(staff).where(eq(staff.email, email)).get()!.id;
  await allocateRound(services, roundId);
  for (const task of db.select().from(markingTasks).where(eq(markingTasks.roundId, roundId)).all()) {
    const level = () => 1 + Math.floor(random() * 3);
    const note = { f: level(), r: level(), a: level(), l: Math.min(2, level()) };
    const given = task.target === 'incident-note/A' ? note : { r: Math.min(2, level()) };
    const comment = COMMENTS[Math.floor(random() * COMMENTS.length)]!;
    giveMark(services, task.assessorId!, task.id, { given, comment, notes: [] });
  }
  signOff(services, byEmail('hedda.lorne@example.org'), roundId);
  release(services, outbox, byEmail('odile.varr@example.org'), roundId);
}

/** What the demo data is made with. */
export type Seeding = Pick<Wired, 'services' | 'outbox' | 'sittings'>;

interface Planned {
  readonly invitationId: number;
  readonly startedAt: number;
  /** 0 to 1. */
  readonly ability: number;
  readonly random: Random;
}

export interface SeedOptions {
  /** With simulated scripts in November and a finished October; tests that want an empty house leave them out. */
  readonly scripts: boolean;
}

/** Fills an empty database with the Hollin Reach data. The same every time, but for the dates and the secret links. */
export async function seedDemo(seeding: Seeding, { scripts }: SeedOptions): Promise<void> {
  const { services, outbox } = seeding;
  const { db, clock, jobs } = services;
  const now = clock.now();
  const random = seededRandom('hollin-reach');
  for (const member of people.staffMembers) await addStaff(db, member);
  const files = await demoFiles();
  keepFiles(services, [...files.values()]);
  publishPaper(db, rehearsalPaper());
  const galleryId = publishPaper(db, galleryPaper(files));
  const paperId = publishPaper(db, technicianPaper());
  const secondId = publishPaper(db, technicianPaper(2));
  const fieldSchoolId = publishPaper(db, fieldSchoolPaper(files));
  const inviteAll = (roundId: number, candidates: readonly people.DemoCandidate[]) =>
    candidates.map(
      ({ name, email, extraPercent, breakMinutes, transcripts }) =>
        invite(services, outbox, roundId, {
          name,
          email,
          extraPercent,
          reference: null,
          timeZone: null,
          arrangements: { ...noArrangements, breakMinutes, transcripts },
        }).invitation,
    );
  const november = addRound(services, paperId, {
    key: 'technician-november',
    title: 'Technician, November',
    opensAt: now - 2 * DAY_MS,
    closesAt: now + 5 * DAY_MS,
  });
  inviteAll(november, people.invitedNow);
  const evening = addRound(services, paperId, {
    key: 'technician-evening',
    title: 'Technician, evening sitting',
    opensAt: now + 20 * MINUTE_MS,
    closesAt: now + 2 * DAY_MS,
    rules: { startRule: 'door code' },
  });
  inviteAll(evening, people.invitedToEvening);
  const supervised = addRound(services, paperId, {
    key: 'technician-supervised',
    title: 'Technician, supervised sitting',
    opensAt: now - HOUR_MS,
    closesAt: now + 3 * DAY_MS,
    rules: {
      startRule: 'by hand',
      identityPicture: true,
      checks: ['browser', 'screen', 'storage', 'connection', 'camera', 'sound', 'full screen'],
    },
  });
  inviteAll(supervised, people.invitedToSupervised);
  const entrance = addRound(services, fieldSchoolId, {
    key: 'field-school-entrance',
    title: 'Field School, entrance',
    opensAt: now - HOUR_MS,
    closesAt: now + 4 * DAY_MS,
    rules: { checks: ['browser', 'screen', 'storage', 'connection', 'sound'] },
  });
  inviteAll(entrance, people.invitedToEntrance);
  const kinds = addRound(services, galleryId, {
    key: 'every-kind',
    title: 'Every kind of question, trial',
    opensAt: now - HOUR_MS,
    closesAt: now + 6 * DAY_MS,
  });
  inviteAll(kinds, people.invitedToKinds);
  const january = addRound(services, secondId, {
    key: 'technician-january',
    title: 'Technician, January',
    opensAt: now + 50 * DAY_MS,
    closesAt: now + 52 * DAY_MS,
  });
  inviteAll(january, people.invitedLater);
  // October is invited while it is open, and closed afterwards.
  const october = addRound(services, paperId, {
    key: 'technician-october',
    title: 'Technician, October',
    opensAt: now - 30 * DAY_MS,
    closesAt: now + DAY_MS,
  });
  inviteAll(october, people.missedOctober);
  if (scripts) {
    for (const id of inviteAll(november, people.handedInNow)) {
      const startedAt = now - 30 * HOUR_MS + Math.round(random() * 20 * HOUR_MS);
      const ability = 0.35 + random() * 0.6;
      const planned = { invitationId: id, startedAt, ability, random };
      const sitting = db.transaction(() => addScript(seeding, planned));
      jobs.add('score', sitting);
    }
    const sat = inviteAll(october, people.releasedInOctober).map((invitationId, i) =>
      db.transaction(() =>
        addScript(seeding, {
          invitationId,
          startedAt: now - 27 * DAY_MS + i * HOUR_MS,
          ability: 0.55 + 0.2 * i,
          random,
        }),
      ),
    );
    await finishRound(seeding, october, sat, random);
  }
  db.update(rounds)
    .set({ closesAt: now - 26 * DAY_MS })
    .where(eq(rounds.id, october))
    .run();
}
