import { asc, eq, isNull, and } from 'drizzle-orm';
import { canonicalJson } from '../../core/journal/canonicalJson';
import { emptyRich } from '../../core/kinds/shared/richText';
import type { MarksGiven } from '../../core/marking/marksGiven';
import { textLeaves } from '../../core/marking/notesInText';
import { seededRandom, type Random } from '../../core/random';
import { evidenceFor } from '../../core/scoring/script';
import { noArrangements } from '../../core/rounds/api';
import { evidence, judgements, marks, markingTasks, rounds, sittings, staff } from '../../server/db/schema';
import { allocateRound } from '../../server/marking/allocation';
import { giveMark } from '../../server/marking/give';
import { changeMarking } from '../../server/marking/items';
import { addStandard } from '../../server/marking/lead';
import { scoreSitting, scriptPartsOf } from '../../server/marking/scoreJob';
import { publishPaper } from '../../server/papers/papers';
import { invite } from '../../server/rounds/operations';
import { sha256 } from '../../server/secrets';
import { newestReceipt } from '../../server/sittings/receipts';
import { observe } from '../../server/observations/observations';
import { simulateAnswers } from '../answers';
import { addRound, addScript, DAY_MS, HOUR_MS, type Seeding } from '../makeRound';
import { technicianPaper } from '../technicianPaper';
import { essayLevels, pageLevels, readAs, sharesQuery, strongestProgram } from './answers';
import { writeEssay, type EssayLevels } from './essays';
import { cohort } from './names';
import { drawPage, WORKINGS } from './pages';

const NOTE = 'incident-note/A';
const PAGE = 'how-many-to-sow/A';
const STRONGEST = 'strongest-lot/A';
/** The program that people read as well. */
const PROGRAM = 'days-to-half/A';
const SHARES = 'best-shares/A';
/** The highest level of each criterion, by target. */
const MOST: Readonly<Record<string, Readonly<Record<string, number>>>> = {
  [NOTE]: { f: 3, r: 3, a: 3, l: 2 },
  [PAGE]: { w: 3, r: 1 },
  [PROGRAM]: { r: 2 },
};

/** What a careful reader would give each script, by target: as indices of levels. */
type Truth = Readonly<Record<string, Readonly<Record<string, number>>>>;

/** The known make of the two assessors: how far they are above or below, and how much they waver. */
const ASSESSORS = [
  { email: 'tamsin.ebanks@example.org', severity: -0.12, spread: 0.75, minutes: 4.3, share: 0.92 },
  { email: 'ruan.petrel@example.org', severity: 0.38, spread: 0.95, minutes: 2.7, share: 0.9 },
] as const;

const COMMENTS = [
  'Facts and cause are exact; say what should happen first.',
  'The night is told clearly. Name the rule that explains the two counts.',
  'Give the times and the lots: a reader of the book was not there.',
  'Good order. One figure is missing.',
  '',
  '',
];
const NOTES = [
  'Which lots?',
  'Well observed.',
  'How do you know?',
  'By when, and who?',
  'The rule is named: full level.',
];

async function addCandidate(
  seeding: Seeding,
  {
    invitationId,
    startedAt,
    ability,
    copied,
  }: { invitationId: number; startedAt: number; ability: number; copied: EssayText | null },
): Promise<{ readonly sitting: number; readonly truth: Truth; readonly essay: EssayText }> {
  const { services } = seeding;
  const random = seededRandom(`cohort ${invitationId}`);
  const levels: EssayLevels = essayLevels(ability, random);
  const essay = copied ? withOwnEnd(copied) : writeEssay(levels, random);
  const page = pageLevels(ability, random);
  const ways = WORKINGS[page.w]!;
  const picture = await drawPage(ways[Math.floor(random() * ways.length)]!, random);
  const hash = sha256(picture);
  const answers = [
    ...simulateAnswers(ability, random).filter(({ target }) => target !== NOTE && target !== STRONGEST),
    { target: STRONGEST, response: strongestProgram(ability + (random() - 0.5) * 0.5, random) },
    { target: SHARES, response: sharesQuery(ability + (random() - 0.5) * 0.4) },
    { target: NOTE, response: essay },
    {
      target: PAGE,
      response: {
        pages: [{ hash, bytes: picture.length, type: 'image/jpeg', turn: 0 }],
        joined: 0,
        text: emptyRich,
      },
    },
  ];
  const sitting = services.db.transaction(() =>
    addScript(seeding, { invitationId, startedAt, answers, random }),
  );
  await services.uploads.take(
    { sitting, invitation: invitationId, attempt: 1, hash, bytes: picture.length, lateAfter: null },
    { from: 0, bytes: picture },
  );
  return {
    sitting,
    essay,
    truth: { [NOTE]: { ...levels }, [PAGE]: { ...page }, [PROGRAM]: { r: Math.round(ability * 2) } },
  };
}

type EssayText = ReturnType<typeof writeEssay>;

/** Somebody else's text with a sentence of one's own. */
const withOwnEnd = ({ text }: EssayText): EssayText => ({
  text: {
    ...text,
    content: [
      ...(text.content ?? []),
      { type: 'paragraph', content: [{ type: 'text', text: 'That is how it was when I came in.' }] },
    ],
  },
});

/** Scores a script; what a program of the same text did before is not run again. */
async function score({ services }: Seeding, sitting: number, known: Map<string, unknown>): Promise<void> {
  const { db } = services;
  const row = db.select().from(sittings).where(eq(sittings.id, sitting)).get()!;
  for (const part of scriptPartsOf(services, row, newestReceipt(db, sitting)!))
    for (const request of evidenceFor(part)) {
      const input = sha256(canonicalJson(request.run));
      const document = known.get(input);
      if (document === undefined) continue;
      const values = {
        sittingId: sitting,
        target: part.target,
        request: request.key,
        input,
        at: row.closedAt!,
      };
      db.insert(evidence)
        .values({ ...values, document: document as typeof evidence.$inferInsert.document })
        .run();
    }
  await scoreSitting(services, sitting, { last: false });
  for (const { input, document } of db.select().from(evidence).where(eq(evidence.sittingId, sitting)).all())
    known.set(input, document);
}

/** What an assessor makes of a script, as they are known to read. */
const givenBy = (truth: Truth, target: string, who: (typeof ASSESSORS)[number], random: Random): MarksGiven =>
  Object.fromEntries(
    Object.entries(MOST[target]!).map(([key, most]) => [
      key,
      readAs(truth[target]![key]!, most, who, random),
    ]),
  );

/** Marks a share of an assessor's queue, with notes and comments, at the pace of a person. */
function mark(
  { services }: Seeding,
  who: (typeof ASSESSORS)[number],
  {
    round,
    target,
    truths,
    from,
    share,
  }: { round: number; target: string; truths: ReadonlyMap<number, Truth>; from: number; share: number },
): void {
  const { db } = services;
  const random = seededRandom(`${who.email} ${target}`);
  const { id } = db.select().from(staff).where(eq(staff.email, who.email)).get()!;
  const queue = db
    .select()
    .from(markingTasks)
    .where(
      and(
        eq(markingTasks.roundId, round),
        eq(markingTasks.target, target),
        eq(markingTasks.assessorId, id),
        isNull(markingTasks.doneAt),
      ),
    )
    .orderBy(asc(markingTasks.position))
    .all();
  // One script with agreed marks is always still to come.
  const toCome = queue.findLast((task) => task.role === 'standard');
  const now = queue.slice(0, Math.round(queue.length * share)).filter((task) => task !== toCome);
  now.forEach((task, i) => {
    const given = givenBy(truths.get(task.sittingId)!, target, who, random);
    const sitting = db.select().from(sittings).where(eq(sittings.id, task.sittingId)).get()!;
    const part = scriptPartsOf(services, sitting, newestReceipt(db, task.sittingId)!).find(
      (one) => one.target === target,
    )!;
    const comment = target === NOTE ? COMMENTS[Math.floor(random() * COMMENTS.length)]! : '';
    const text = NOTES[Math.floor(random() * NOTES.length)]!;
    const notes =
      target === PAGE
        ? [
            {
              id: 'n-1',
              anchor: {
                on: 'page' as const,
                file: fileOf(part.response),
                page: 1,
                shape: 'box' as const,
                points: [
                  [0.1, 0.08],
                  [0.55, 0.2],
                ] as [number, number][],
              },
              component: 'w',
              text: 'This step is clear.',
            },
          ]
        : target === NOTE
          ? noteOn(textLeaves((part.response as EssayText).text), text, random)
          : [];
    giveMark(services, id, task.id, {
      given,
      comment,
      notes: random() < 0.6 ? notes : [],
      overrides: {},
      seen: null,
    });
    // As if it had been given by a person, one after the other.
    const at = Math.round(from + (i + random() * 0.6) * who.minutes * 60_000);
    const { judgementId } = db.select().from(markingTasks).where(eq(markingTasks.id, task.id)).get()!;
    // What there was to tell of it is read.
    const told = task.role === 'standard' ? { toldAt: at } : {};
    db.update(markingTasks)
      .set({ doneAt: at, ...told })
      .where(eq(markingTasks.id, task.id))
      .run();
    db.update(judgements).set({ at }).where(eq(judgements.id, judgementId!)).run();
    db.update(marks).set({ at }).where(eq(marks.judgementId, judgementId!)).run();
  });
}

const fileOf = (response: unknown) => (response as { pages: { hash: string }[] }).pages[0]!.hash;

/** A note on one of the sentences of a text. */
function noteOn(text: string, says: string, random: Random) {
  const sentences = [...text.matchAll(/[^.;]+[.;]/g)];
  const one = sentences[Math.floor(random() * sentences.length)];
  if (!one) return [];
  const start = one.index + (one[0].length - one[0].trimStart().length);
  const anchor = {
    on: 'text' as const,
    start,
    end: one.index + one[0].length,
    quote: one[0].trim().slice(0, 200),
  };
  return [{ id: 'n-1', anchor, component: 'f', text: says }];
}

/** The main sitting: 60 scripts, two assessors of known severity in the midst of marking, agreed marks, gaps, one copy. */
export async function seedCohort(seeding: Seeding): Promise<number> {
  const { services, outbox } = seeding;
  const { db, clock } = services;
  const now = clock.now();
  const paper = publishPaper(db, technicianPaper(3));
  const round = addRound(services, paper, {
    key: 'technician-main',
    title: 'Technician, November main sitting',
    opensAt: now - 4 * DAY_MS,
    closesAt: now + HOUR_MS,
    rules: { sheet: 'key' },
    assessors: ASSESSORS.map(({ email }) => email),
  });
  const truths = new Map<number, Truth>();
  const known = new Map<string, unknown>();
  let copied: EssayText | null = null;
  for (const [i, { name, email, extraPercent }] of cohort.entries()) {
    const { invitation } = invite(services, outbox, round, {
      name,
      email,
      extraPercent,
      reference: null,
      timeZone: null,
      arrangements: noArrangements,
    });
    const random = seededRandom(`ability ${i}`);
    const made: Awaited<ReturnType<typeof addCandidate>> = await addCandidate(seeding, {
      invitationId: invitation,
      startedAt: now - 3 * DAY_MS + Math.round(random() * 20 * HOUR_MS),
      ability: 0.15 + 0.8 * ((random() + random()) / 2),
      copied: i === 37 ? copied : null,
    });
    if (i === 36) copied = made.essay;
    truths.set(made.sitting, made.truth);
    if (i % 9 === 2) {
      const { closedAt } = db.select().from(sittings).where(eq(sittings.id, made.sitting)).get()!;
      const at = closedAt! - 20 * 60_000;
      observe(db, made.sitting, {
        kind: 'connection gap',
        from: at,
        to: at + 72_000,
        facts: { seconds: 72 },
      });
    }
    await score(seeding, made.sitting, known);
  }
  changeMarking(
    db,
    { round, target: NOTE },
    { marks: 1200, doublePercent: 60, tolerance: 200, standardEvery: 8 },
  );
  changeMarking(
    db,
    { round, target: PAGE },
    { marks: 500, doublePercent: 30, tolerance: 100, standardEvery: 10 },
  );
  await allocateRound(services, round);
  const lead = db.select().from(staff).where(eq(staff.email, 'hedda.lorne@example.org')).get()!.id;
  const agreed = [...truths].filter((_, i) => i % 7 === 3).slice(0, 8);
  for (const [i, [sitting, truth]] of agreed.entries()) {
    const { script } = db.select().from(sittings).where(eq(sittings.id, sitting)).get()!;
    await addStandard(
      services,
      lead,
      { round, target: NOTE },
      {
        script,
        use: i < 2 ? 'practice' : 'unseen',
        given: truth[NOTE]!,
        comment: '',
        reason:
          'The lots and the hours are what the facts are about; a cause without the rule is asserted, not explained.',
      },
    );
  }
  const from = now - 9 * HOUR_MS;
  for (const who of ASSESSORS) {
    mark(seeding, who, { round, target: NOTE, truths, from, share: who.share });
    mark(seeding, who, { round, target: PAGE, truths, from: from + 5 * HOUR_MS, share: 0.95 });
    mark(seeding, who, { round, target: PROGRAM, truths, from: from + 7 * HOUR_MS, share: 0.95 });
  }
  db.update(rounds)
    .set({ closesAt: now - DAY_MS })
    .where(eq(rounds.id, round))
    .run();
  return round;
}
