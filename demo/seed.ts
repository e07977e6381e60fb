import { eq } from 'drizzle-orm';
import { noArrangements } from '../core/rounds/api';
import { seededRandom, type Random } from '../core/random';
import { allParts } from '../core/papers/paper';
import { MINUTE_MS } from '../core/timing/deadline';
import { addStaff } from '../server/accounts/operations';
import { markingTasks, rounds, sittings, staff } from '../server/db/schema';
import { allocateRound } from '../server/marking/allocation';
import { giveMark } from '../server/marking/give';
import { commentOn } from '../server/marking/remarks';
import { scoreSitting } from '../server/marking/scoreJob';
import { signOff } from '../server/marking/signOff';
import { keepFiles } from '../server/papers/keepFiles';
import { publishPaper } from '../server/papers/papers';
import { release } from '../server/results/release';
import { invite } from '../server/rounds/operations';
import { simulateAnswers } from './answers';
import { seedCohort } from './cohort/seedCohort';
import { fieldSchoolPaper } from './fieldSchoolPaper';
import { countingPaper } from './countingPaper';
import { demoFiles } from './files';
import { addRound, addScript, DAY_MS, HOUR_MS, type Seeding } from './makeRound';
import { readingPaper } from './readingPaper';
import * as people from './people';
import { galleryPaper, rehearsalPaper } from './rehearsalPaper';
import { technicianPaper } from './technicianPaper';

const NOTE_COMMENTS = [
  'Facts and cause are exact; say what should happen first.',
  'The night is told clearly. Name the rule that explains the two counts.',
  'Give the times and the lots: a reader of the book was not there.',
];
const PROGRAM_COMMENTS = [
  'Clear names. The last step could be named too.',
  'A reader has to run it to see where half is passed; say it in a name.',
];
const OVERALL =
  'Exact with figures, and the records are read with care. In writing, put the most urgent action first.';

/** October as it would have gone: everything marked, signed off and released. */
async function finishRound(
  { services }: Seeding,
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
    const isNote = task.target === 'incident-note/A';
    const given = isNote ? note : { r: Math.min(2, level()) };
    const comments = isNote ? NOTE_COMMENTS : PROGRAM_COMMENTS;
    const comment = comments[Math.floor(random() * comments.length)]!;
    giveMark(services, task.assessorId!, task.id, { given, comment, notes: [], overrides: {}, seen: null });
  }
  const [first] = scripts;
  const { script } = db.select().from(sittings).where(eq(sittings.id, first!)).get()!;
  const lead = byEmail('hedda.lorne@example.org');
  commentOn(services, lead, roundId, { script, text: OVERALL });
  signOff(services, lead, roundId);
  release(services, byEmail('odile.varr@example.org'), roundId);
}

export interface SeedOptions {
  /** With simulated scripts in November and a finished October; tests that want an empty house leave them out. */
  readonly scripts: boolean;
  /** With the main sitting of 60 candidates, partly marked. */
  readonly cohort: boolean;
}

/** Fills an empty database with the Hollin Reach data. The same every time, but for the dates and the secret links. */
export async function seedDemo(seeding: Seeding, { scripts, cohort }: SeedOptions): Promise<void> {
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
  const countingId = publishPaper(db, countingPaper());
  const fieldSchoolId = publishPaper(db, fieldSchoolPaper(files));
  publishPaper(db, readingPaper());
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
  const counting = addRound(services, countingId, {
    key: 'counting-check',
    title: 'Counting check',
    opensAt: now - 3 * DAY_MS,
    closesAt: now + 9 * DAY_MS,
    rules: { checks: [], attemptsAllowed: 3, counts: 'best', release: 'at once' },
  });
  const [counter] = inviteAll(counting, people.invitedToCounting);
  const january = addRound(services, secondId, {
    key: 'technician-january',
    title: 'Technician, January',
    opensAt: now + 50 * DAY_MS,
    closesAt: now + 52 * DAY_MS,
  });
  inviteAll(january, [...people.invitedLater, ...people.invitedToCounting]);
  // October is invited while it is open, and closed afterwards.
  const october = addRound(services, paperId, {
    key: 'technician-october',
    title: 'Technician, October',
    opensAt: now - 30 * DAY_MS,
    closesAt: now + DAY_MS,
  });
  inviteAll(october, people.missedOctober);
  if (scripts) {
    const asked = new Set(allParts(countingPaper()).map(({ target }) => target));
    const answers = simulateAnswers(0.6, random).filter(({ target }) => asked.has(target));
    const planned = { invitationId: counter!, startedAt: now - 2 * DAY_MS, answers, random };
    jobs.add(
      'score',
      db.transaction(() => addScript(seeding, planned)),
    );
    for (const id of inviteAll(november, people.handedInNow)) {
      const startedAt = now - 30 * HOUR_MS + Math.round(random() * 20 * HOUR_MS);
      const ability = 0.35 + random() * 0.6;
      const answers = simulateAnswers(ability, random);
      const planned = { invitationId: id, startedAt, answers, random };
      const sitting = db.transaction(() => addScript(seeding, planned));
      jobs.add('score', sitting);
    }
    const sat = inviteAll(october, people.releasedInOctober).map((invitationId, i) =>
      db.transaction(() =>
        addScript(seeding, {
          invitationId,
          startedAt: now - 27 * DAY_MS + i * HOUR_MS,
          answers: simulateAnswers(0.55 + 0.2 * i, random),
          random,
        }),
      ),
    );
    await finishRound(seeding, october, sat, random);
  }
  if (cohort) await seedCohort(seeding);
  db.update(rounds)
    .set({ closesAt: now - 26 * DAY_MS })
    .where(eq(rounds.id, october))
    .run();
}
