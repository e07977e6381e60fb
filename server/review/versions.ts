import { diffLines } from 'diff';
import { and, asc, eq, or } from 'drizzle-orm';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import { responseOrEmpty } from '../../core/kinds/stored';
import { say } from '../../core/messages/words';
import type { VersionStep } from '../../core/observations/review';
import { MINUTE_MS } from '../../core/timing/deadline';
import { journal } from '../db/schema';
import type { Read } from '../reading/read';
import { sittingQueries } from '../sittings/queries';
import { valueOf } from '../sittings/values';
import { partOfForm, reviewedSitting, type ReviewOf } from './reads';

interface VersionsOf extends Omit<ReviewOf, 'staffId'> {
  readonly target: string;
}

/** What was saved within so long, with nothing between, is told as one version. */
const TOGETHER_MS = 2 * MINUTE_MS;
const MOST_STEPS = 200;
const LINES_TOLD = 40;
const MOST_CHANGES = 2000;
const LINE_KEPT = 200;

/** The last line is one like the others: what is written behind it does not change it. */
const ended = (text: string): string => (text === '' || text.endsWith('\n') ? text : `${text}\n`);

function changeOf(first: string, second: string): Omit<Extract<VersionStep, { is: 'version' }>, 'is' | 'at'> {
  const [before, after] = [ended(first), ended(second)];
  // What has changed altogether is told as that: to find the fewest changes in it would take seconds.
  const compared = diffLines(before, after, { maxEditLength: MOST_CHANGES }) ?? [
    { value: before, removed: true, added: false, count: before.split('\n').length },
    { value: after, removed: false, added: true, count: after.split('\n').length },
  ];
  const changed = compared.filter((one) => one.added || one.removed);
  const count = (added: boolean) =>
    changed.filter((one) => one.added === added).reduce((sum, one) => sum + (one.count ?? 0), 0);
  const lines = changed.flatMap(({ value, added }) =>
    value
      .replace(/\n$/, '')
      .split('\n')
      .map((text) => ({ text: text.slice(0, LINE_KEPT), added })),
  );
  return { added: count(true), removed: count(false), lines: lines.slice(0, LINES_TOLD) };
}

/** How an answer came about: its saved versions with what changed in them, and what was done between them, such as runs. */
export const versionsRead: Read<VersionsOf, VersionStep[]> = {
  name: 'versions',
  run: ({ db }, of) => {
    const sitting = reviewedSitting(db, of);
    const part = partOfForm(db, sitting, of.target);
    const kind = candidateKindOf(part.kind);
    const events = new Map(kind.events.map((name) => [`${of.target}/${name}`, name]));
    const about = or(
      and(eq(journal.about, 'answer'), eq(journal.target, of.target)),
      ...[...events.keys()].map((target) => and(eq(journal.about, 'event'), eq(journal.target, target))),
    );
    const rows = db
      .select()
      .from(journal)
      .where(and(eq(journal.sittingId, sitting.id), about))
      .orderBy(asc(journal.hold), asc(journal.number))
      .all()
      .filter((row) => row.aside === null)
      .map((row) => ({ ...row, at: Math.min(row.claimedAt, row.arrivedAt) }));
    const stored = (row: (typeof rows)[number]): unknown => {
      const value = valueOf(sittingQueries(db), sitting.id, { hold: row.hold, number: row.number });
      return value ? JSON.parse(value.text) : undefined;
    };
    const steps: VersionStep[] = [];
    let [text, since] = ['', 0];
    for (const [i, row] of rows.entries()) {
      if (row.about === 'event') {
        const what = kind.tellEvent?.(events.get(row.target)!, stored(row)) ?? null;
        if (what) steps.push({ is: 'event', at: row.at, what });
        continue;
      }
      since ||= row.at;
      const next = rows[i + 1];
      if (next?.about === 'answer' && next.at - since < TOGETHER_MS) continue;
      since = 0;
      const after = kind.describe(part.shown, responseOrEmpty(part.kind, part.shown, stored(row)), say).text;
      if (after !== text) steps.push({ is: 'version', at: row.at, ...changeOf(text, after) });
      text = after;
    }
    return steps.slice(-MOST_STEPS);
  },
};
