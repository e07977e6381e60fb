import { eq } from 'drizzle-orm';
import { seededRandom, type Random } from '../core/random';
import { MINUTE_MS } from '../core/timing/deadline';
import type { FullPaper } from '../core/papers/paper';
import { noArrangements, type RoundSettings } from '../core/rounds/api';
import { addStaff } from '../server/accounts/accounts';
import { journal, markingTasks, papers, rounds, sittings, staff } from '../server/db/schema';
import { scriptCode } from '../server/http/secrets';
import type { Outbox } from '../server/mail/outbox';
import { giveMark, signOff } from '../server/marking/operations';
import { scoreSitting } from '../server/marking/scoreJob';
import { noteArrival } from '../server/arrival/queries';
import { invite, release } from '../server/rounds/operations';
import type { Services } from '../server/services';
import { receiptHashOf } from '../server/sittings/receipt';
import { simulateAnswers } from './answers';
import * as people from './people';
import { rehearsalPaper } from './rehearsalPaper';
import { technicianPaper } from './technicianPaper';

const HOUR_MS = 60 * MINUTE_MS;
const DAY_MS = 24 * HOUR_MS;

const settings = (resultBy: number): RoundSettings => ({
  attemptsAllowed: 1,
  counts: 'latest',
  startRule: 'opening time',
  doorsMinutes: 30,
  openRehearsal: true,
  correctionsFirst: false,
  identityPicture: false,
  checks: ['browser', 'screen', 'storage', 'clock', 'connection', 'camera'],
  recorded: 'One picture, taken before you start and kept for 60 days. No film and no sound.',
  keptDays: 60,
  help: 'If something does not work, call the archive: Bram Ostler, extension 31, from eight to eight.',
  resultBy,
});

interface RoundPlan {
  readonly key: string;
  readonly title: string;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly rules?: Partial<RoundSettings>;
}

function addRound({ db }: Services, paperId: number, { rules, ...plan }: RoundPlan): number {
  const values = {
    ...plan,
    paperId,
    timeZone: 'Europe/London',
    settings: { ...settings(plan.closesAt + 4 * DAY_MS), ...rules },
  };
  return Number(db.insert(rounds).values(values).run().lastInsertRowid);
}

/** A script as a candidate would have left it: a started and closed sitting with its journal. */
function addScript(
  services: Services,
  invitationId: number,
  startedAt: number,
  ability: number,
  random: Random,
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
  const sittingId = Number(
    db
      .insert(sittings)
      .values({
        ...{ invitationId, attempt: 1, seed: `demo-${invitationId}` },
        script: scriptCode(secret, `${invitationId}/1`),
      })
      .run().lastInsertRowid,
  );
  time.record(sittingId, { type: 'started', at: startedAt });
  const answers = simulateAnswers(ability, random);
  answers.forEach(({ target, value }, i) => {
    const at = Math.round(startedAt + ((closedAt - startedAt) * (i + 1)) / (answers.length + 1));
    const entry = { sittingId, device: 'demo-device', seq: i + 1, about: 'answer' as const, target };
    db.insert(journal)
      .values({ ...entry, value: JSON.stringify(value), clientAt: at, serverAt: at, standing: 'in-time' })
      .run();
  });
  time.record(sittingId, { type: 'closed', at: closedAt, by: 'candidate' });
  const receiptHash = receiptHashOf(services, sittingId);
  db.update(sittings).set({ receiptHash }).where(eq(sittings.id, sittingId)).run();
  return sittingId;
}

const COMMENTS = [
  'Facts and cause are exact; say what should happen first.',
  'The night is told clearly. Name the rule that explains the two counts.',
  'Give the times and the lots: a reader of the book was not there.',
];

/** October as it would have gone: everything marked, signed off and released. */
async function finishRound(
  services: Services,
  roundId: number,
  scripts: readonly number[],
  random: Random,
): Promise<void> {
  const { db } = services;
  for (const script of scripts) await scoreSitting(services, script);
  const byEmail = (email: string) => db.select().from(staff).where(eq(staff.email, email)).get()!.id;
  const assessor = byEmail('tamsin.ebanks@example.org');
  for (const task of db.select().from(markingTasks).where(eq(markingTasks.roundId, roundId)).all()) {
    const level = () => 1 + Math.floor(random() * 3);
    const levels = { f: level(), r: level(), a: level(), l: Math.min(2, level()) };
    giveMark(services, assessor, task.id, {
      levels,
      comment: COMMENTS[Math.floor(random() * COMMENTS.length)]!,
    });
  }
  signOff(services, byEmail('hedda.lorne@example.org'), roundId);
  release(services, byEmail('odile.varr@example.org'), roundId);
}

export interface SeedOptions {
  /** With simulated scripts in November and a finished October; tests that want an empty house leave them out. */
  readonly scripts: boolean;
}

/** Fills an empty database with the Hollin Reach data. The same every time, but for the dates and the secret links. */
export async function seedDemo(services: Services, outbox: Outbox, { scripts }: SeedOptions): Promise<void> {
  const { db, clock, jobs } = services;
  const now = clock.now();
  const random = seededRandom('hollin-reach');
  for (const member of people.staffMembers) await addStaff(db, member);
  const publish = (document: FullPaper) => {
    const { key, version } = document;
    return Number(db.insert(papers).values({ key, version, document }).run().lastInsertRowid);
  };
  publish(rehearsalPaper());
  const paperId = publish(technicianPaper());
  const inviteAll = (roundId: number, candidates: readonly people.DemoCandidate[]) =>
    candidates.map(
      ({ name, email, extraPercent, breakMinutes }) =>
        invite(services, outbox, roundId, {
          ...{ name, email, extraPercent, reference: null, timeZone: null },
          arrangements: { ...noArrangements, breakMinutes },
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
  const january = addRound(services, paperId, {
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
      const sitting = addScript(
        services,
        id,
        now - 30 * HOUR_MS + Math.round(random() * 20 * HOUR_MS),
        0.35 + random() * 0.6,
        random,
      );
      jobs.add('score', sitting);
    }
    const sat = inviteAll(october, people.releasedInOctober).map((id, i) =>
      addScript(services, id, now - 27 * DAY_MS + i * HOUR_MS, 0.55 + 0.2 * i, random),
    );
    await finishRound(services, october, sat, random);
  }
  db.update(rounds)
    .set({ closesAt: now - 26 * DAY_MS })
    .where(eq(rounds.id, october))
    .run();
}
