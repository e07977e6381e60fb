import { and, eq, inArray } from 'drizzle-orm';
import type { Component } from '../../core/kinds/contract';
import type { JudgementRole, MarkRole } from '../../core/marking/mark';
import { isGap, meanGiven, totalGiven, type Given } from '../../core/marking/settle';
import type { GivenMark } from '../../core/marking/marksGiven';
import type { Db } from '../db/open';
import { gaps, judgements, markingTasks, marks } from '../db/schema';
import { addMark, standingMark } from './marks';

export type Judgement = typeof judgements.$inferSelect;
export type NewJudgement = Omit<Judgement, 'id'>;

export const addJudgement = (db: Db, judgement: NewJudgement): Judgement =>
  db.insert(judgements).values(judgement).returning().get();

export const findJudgement = (db: Db, id: number): Judgement =>
  db.select().from(judgements).where(eq(judgements.id, id)).get()!;

/** What a judgement gave, by component. */
export const givenBy = ({ given }: Pick<Judgement, 'given'>): Given =>
  Object.fromEntries(given.map(({ component, hundredths }) => [component, hundredths]));

export const totalOfJudgement = (judgement: Pick<Judgement, 'given'>): number =>
  totalGiven(givenBy(judgement));

/**
 * Adds the marks of a judgement, one a component. A second mark stands beside the first, which it does not supersede; any
 * other supersedes what stood.
 */
export function addMarksOf(
  db: Db,
  judgement: Judgement,
  role: MarkRole,
  given: readonly GivenMark[] = judgement.given,
): void {
  const { sittingId, target, staffId, id: judgementId, response, at } = judgement;
  for (const { component, hundredths, level } of given) {
    const ofRole = db
      .select()
      .from(marks)
      .where(
        and(
          eq(marks.sittingId, sittingId),
          eq(marks.target, target),
          eq(marks.component, component),
          eq(marks.role, role),
        ),
      )
      .all()
      .at(-1);
    const blind = role === 'first' || role === 'second';
    const before = ofRole ?? (blind ? null : standingMark(db, sittingId, target, component));
    const cause = before !== null && before.response !== response ? 'response changed' : 'marking';
    const mark = { sittingId, target, component, role, cause, response, staffId, judgementId } as const;
    addMark(db, { ...mark, hundredths, level, verdict: null, reasons: [], at }, before);
  }
}

/** The judgements that a part's marks rest on: of first and second, as they were last given, and of who settled them. */
export function judgementsOf(db: Db, ids: readonly number[], target?: string): Judgement[] {
  if (ids.length === 0) return [];
  const own = and(
    inArray(markingTasks.sittingId, [...ids]),
    inArray(markingTasks.role, ['first', 'second'] satisfies JudgementRole[]),
    target === undefined ? undefined : eq(markingTasks.target, target),
  );
  const blind = db
    .select({ judgement: judgements })
    .from(markingTasks)
    .innerJoin(judgements, eq(judgements.id, markingTasks.judgementId))
    .where(own)
    .orderBy(judgements.id)
    .all();
  const settled = db
    .select({ judgement: judgements })
    .from(judgements)
    .where(
      and(
        inArray(judgements.sittingId, [...ids]),
        inArray(judgements.role, ['settlement', 'agreed'] satisfies JudgementRole[]),
        target === undefined ? undefined : eq(judgements.target, target),
      ),
    )
    .orderBy(judgements.id)
    .all();
  return [...blind, ...settled].map(({ judgement }) => judgement);
}

interface Compared {
  readonly roundId: number;
  readonly sittingId: number;
  readonly target: string;
  readonly components: readonly Component[];
  readonly tolerance: number;
  readonly at: number;
}

/**
 * Compares both marks of a part once both are given: within the tolerance their mean stands, beyond it a gap is opened for
 * the lead. A gap whose marks were given again is closed. Part of a commit.
 */
export function compareMarks(
  db: Db,
  { roundId, sittingId, target, components, tolerance, at }: Compared,
): void {
  const tasks = db
    .select()
    .from(markingTasks)
    .where(and(eq(markingTasks.sittingId, sittingId), eq(markingTasks.target, target)))
    .all();
  const done = (role: JudgementRole) => tasks.find((task) => task.role === role && task.doneAt !== null);
  const [first, second] = [done('first'), done('second')];
  const own = and(eq(gaps.sittingId, sittingId), eq(gaps.target, target));
  const known = db.select().from(gaps).where(own).all();
  const same = known.find((gap) => gap.first === first?.judgementId && gap.second === second?.judgementId);
  // Open, or settled of these very marks.
  if (same && (same.closedAt === null || same.settlement !== null)) return;
  for (const gap of known.filter((one) => one.closedAt === null))
    db.update(gaps).set({ closedAt: at }).where(eq(gaps.id, gap.id)).run();
  if (first?.judgementId == null || second?.judgementId == null) return;
  const [a, b] = [findJudgement(db, first.judgementId), findJudgement(db, second.judgementId)];
  if (isGap(givenBy(a), givenBy(b), tolerance)) {
    db.insert(gaps).values({ roundId, sittingId, target, first: a.id, second: b.id, openedAt: at }).run();
    return;
  }
  addMarksOf(db, { ...b, at }, 'mean', meanMarks(components, [a, b]));
}

/** The mean of judgements as marks: a level stands where all chose it. */
export function meanMarks(
  components: readonly Component[],
  of: readonly Pick<Judgement, 'given'>[],
): GivenMark[] {
  const mean = meanGiven(
    components.map(({ key }) => key),
    of.map(givenBy),
  );
  return components.map(({ key }) => {
    const own = of.map(({ given }) => given.find((mark) => mark.component === key)!);
    const [one] = own;
    const agreed = own.every((mark) => mark.hundredths === one!.hundredths);
    return {
      component: key,
      hundredths: mean[key]!,
      level: agreed ? one!.level : null,
      points: agreed ? one!.points : null,
    };
  });
}
