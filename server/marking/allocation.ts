import { and, count, eq, inArray, isNull, notInArray, sql } from 'drizzle-orm';
import { allocate, type Assigned, type Turn } from '../../core/marking/allocate';
import type { JudgementRole } from '../../core/marking/mark';
import { standardPlaces } from '../../core/marking/standardisation';
import { markedPaper } from '../../core/results/attempts';
import { componentsOf, byPeople } from '../../core/scoring/components';
import type { Db } from '../db/open';
import { markingHolds, markingInterests, markingTasks, roundStaff, standards } from '../db/schema';
import { paperOfVersion } from '../papers/papers';
import { findRound } from '../schedule/queries';
import { itemOf, markingOf, type ItemRef } from './items';
import type { Task } from './scripts';
import { newTaskId, positionByChance } from './taskIds';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasSecret } from '../db/serverSecret';

type Hold = typeof markingHolds.$inferSelect;

/** Why an assessor gets nothing of an item now; null where they do. */
export function openHold(db: Db, { round, target }: ItemRef, staffId: number): Hold | null {
  const own = and(
    eq(markingHolds.roundId, round),
    eq(markingHolds.staffId, staffId),
    inArray(markingHolds.target, ['', target]),
    isNull(markingHolds.endedAt),
  );
  return db.select().from(markingHolds).where(own).get() ?? null;
}

/** Who marks an item now. */
export function assessorsOf(db: Db, ref: ItemRef): number[] {
  return db
    .select({ id: roundStaff.staffId })
    .from(roundStaff)
    .where(and(eq(roundStaff.roundId, ref.round), eq(roundStaff.role, 'assessor')))
    .all()
    .map(({ id }) => id)
    .filter((id) => openHold(db, ref, id) === null);
}

/** Scripts of an item are written in pieces of so many, so that saves go on in between. */
const PIECE = 400;

const isTurn = (role: JudgementRole): role is Turn => role === 'first' || role === 'second';

interface ToWrite {
  readonly tasks: readonly Task[];
  readonly added: readonly Assigned[];
}

/** Gives tasks to assessors; a second mark becomes a task of its own. Part of a commit. */
function write(db: Db, { tasks, added }: ToWrite): void {
  const known = new Map(tasks.map((task) => [`${task.sittingId} ${task.role}`, task]));
  for (const { script, turn, assessor } of added) {
    const task = known.get(`${script} ${turn}`);
    const position = positionByChance();
    if (task) {
      const to = { assessorId: assessor, position, draft: null };
      // Nobody has given it in the meantime.
      const open = and(eq(markingTasks.id, task.id), isNull(markingTasks.doneAt));
      db.update(markingTasks).set(to).where(open).run();
      continue;
    }
    const { roundId, sittingId, target, failure, trouble, undecided, response } = known.get(
      `${script} first`,
    )!;
    const values = { roundId, sittingId, target, failure, trouble, undecided, response, position };
    db.insert(markingTasks)
      .values({ ...values, id: newTaskId(), role: turn, assessorId: assessor })
      .run();
  }
}

/** Who may not mark which scripts, as they know whoever wrote them. */
const barredFrom = (db: Db) =>
  db
    .select({ script: markingInterests.sittingId, assessor: markingInterests.staffId })
    .from(markingInterests)
    .all();

/** Every assessor's practice set, and scripts with agreed marks among their others at the set rate. Part of a commit. */
function addStandards(db: Db, ref: ItemRef, every: number): void {
  const inItem = and(eq(standards.roundId, ref.round), eq(standards.target, ref.target));
  const known = db.select().from(standards).where(inItem).all();
  if (known.length === 0) return;
  const barred = barredFrom(db);
  for (const assessorId of assessorsOf(db, ref)) {
    const own = db
      .select()
      .from(markingTasks)
      .where(
        and(
          eq(markingTasks.roundId, ref.round),
          eq(markingTasks.target, ref.target),
          eq(markingTasks.assessorId, assessorId),
        ),
      )
      .orderBy(markingTasks.position)
      .all();
    // A script that somebody has marked before tells them nothing new.
    const fresh = known.filter(
      ({ sittingId }) =>
        own.every((task) => task.sittingId !== sittingId) &&
        !barred.some(({ script, assessor }) => script === sittingId && assessor === assessorId),
    );
    const [first] = own;
    if (!first) continue;
    const add = (sittingId: number, role: JudgementRole, position: number) => {
      const task = db
        .select()
        .from(markingTasks)
        .where(and(eq(markingTasks.sittingId, sittingId), eq(markingTasks.target, ref.target)))
        .get();
      const { response = '', failure = null, undecided = [] } = task ?? {};
      const made = { response, failure, undecided, position };
      const values = { roundId: ref.round, sittingId, target: ref.target, ...made };
      db.insert(markingTasks)
        .values({ ...values, id: newTaskId(), role, assessorId })
        .run();
    };
    fresh
      .filter(({ use }) => use === 'practice')
      .forEach(({ sittingId }, i) => add(sittingId, 'practice', -1_000_000 + i));
    const queue = own.filter((task) => isTurn(task.role));
    const unseen = fresh.filter(({ use }) => use === 'unseen');
    const given = own.filter((task) => task.role === 'standard').length;
    const seed = `${ref.round}/${ref.target}/${assessorId}`;
    const places = standardPlaces(queue.length, { every, known: given + unseen.length, seed }).slice(given);
    places.forEach((at, i) => {
      const [before, after] = [queue[at - 1]?.position ?? 0, queue[at]!.position];
      add(unseen[i]!.sittingId, 'standard', Math.floor((before + after) / 2));
    });
  }
}

/** What is shared out now, and how far the rest has been. */
function openWork(db: Db, ref: ItemRef, again: readonly number[] | null) {
  const turns = inArray(markingTasks.role, ['first', 'second']);
  const inItem = and(eq(markingTasks.roundId, ref.round), eq(markingTasks.target, ref.target), turns);
  const free = and(inItem, isNull(markingTasks.assessorId), isNull(markingTasks.doneAt));
  const ids = db.selectDistinct({ id: markingTasks.sittingId }).from(markingTasks).where(free);
  // Scripts as they come: those that nobody has. Where something has changed, all of them.
  const where = again === null ? and(inItem, inArray(markingTasks.sittingId, ids)) : inItem;
  const tasks = db.select().from(markingTasks).where(where).all();
  const rest = again === null ? notInArray(markingTasks.sittingId, ids) : sql`false`;
  const loads = db
    .select({ id: markingTasks.assessorId, role: markingTasks.role, n: count() })
    .from(markingTasks)
    .where(and(inItem, rest))
    .groupBy(markingTasks.assessorId, markingTasks.role)
    .all();
  const sum = (of: typeof loads) => of.reduce((all, { n }) => all + n, 0);
  return {
    tasks,
    before: {
      loads: Object.fromEntries(
        loads.map(({ id }) => [String(id), sum(loads.filter((one) => one.id === id))]),
      ),
      scripts: sum(loads.filter(({ role }) => role === 'first')),
      doubled: sum(loads.filter(({ role }) => role === 'second')),
    },
  };
}

/**
 * Shares out what nobody has yet of one item, and marks twice what its share asks for. `again` are assessors whose open
 * work is taken away first, as of somebody who is absent; with a list, even an empty one, all scripts are looked at.
 */
async function allocateItem(
  services: HasDb & HasCommits & HasSecret,
  ref: ItemRef,
  again: readonly number[] | null,
): Promise<void> {
  const { db, commits } = services;
  const { tasks, before } = openWork(db, ref, again);
  if (tasks.length === 0) return;
  const { judged } = itemOf(db, ref);
  const { doublePercent, standardEvery } = markingOf(db, ref, judged);
  const isFree = (task: Task) =>
    task.doneAt === null && (task.assessorId === null || again?.includes(task.assessorId) === true);
  const kept = tasks.flatMap((task): Assigned[] =>
    isFree(task) ? [] : [{ script: task.sittingId, turn: task.role as Turn, assessor: task.assessorId! }],
  );
  const { added } = allocate({
    scripts: [...new Set(tasks.map((task) => task.sittingId))],
    assessors: assessorsOf(db, ref),
    doublePercent,
    kept,
    barred: barredFrom(db),
    before,
    seed: `${services.secret}/${ref.round}/${ref.target}`,
  });
  for (let from = 0; from < added.length; from += PIECE)
    await commits.run(() => write(db, { tasks, added: added.slice(from, from + PIECE) }));
  await commits.run(() => addStandards(db, ref, standardEvery));
}

/** The parts of a round that people mark, or that the machine could not. */
function markedItems(db: Db, round: number): ItemRef[] {
  const found = findRound(db, round);
  if (!found) return [];
  const byHand = db
    .selectDistinct({ target: markingTasks.target })
    .from(markingTasks)
    .where(eq(markingTasks.roundId, round))
    .all()
    .map(({ target }) => target);
  const paper = paperOfVersion(db, found.paperVersionId);
  const { rulings } = markedPaper(paper, found.settings.withdrawn);
  const people = [...componentsOf(paper)]
    .filter(([, components]) => byPeople(components).length > 0)
    .map(([target]) => target);
  // What was decided whatever was answered is shared out to nobody.
  return [...new Set([...people, ...byHand])]
    .filter((target) => !rulings.has(target))
    .map((target) => ({ round, target }));
}

/** Shares out the open work of a round, item by item. */
export async function allocateRound(
  services: HasDb & HasCommits & HasSecret,
  round: number,
  again: readonly number[] | null = null,
): Promise<void> {
  for (const ref of markedItems(services.db, round)) await allocateItem(services, ref, again);
}

/** As `allocateRound`, of one item: where its settings changed, or somebody's marking of it is held. */
export const allocateAgain = (
  services: HasDb & HasCommits & HasSecret,
  ref: ItemRef,
  again: readonly number[] = [],
) => allocateItem(services, ref, again);

/** Shares out what nobody has of one item. */
export const allocateOpen = (services: HasDb & HasCommits & HasSecret, ref: ItemRef) =>
  allocateItem(services, ref, null);
