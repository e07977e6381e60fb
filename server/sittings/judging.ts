import { and, eq, isNotNull, sql } from 'drizzle-orm';
import type { EntryRef } from '../../core/journal/entry';
import {
  judgeSitting,
  type Decided,
  type EntryRecord,
  type HoldRecord,
  type Judged,
} from '../../core/journal/judge';
import type { FullPaper } from '../../core/papers/paper';
import type { SittingTime } from '../../core/timing/sittingTime';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { currentAnswers, decisions } from '../db/schema';
import type { Holds, HoldState } from './holds';
import { fitsText } from './journalWriter';
import { sectionOfTarget } from './placing';
import { sittingQueries, type JournalRow } from './queries';
import { forwardOnlyForJudge } from './forwardOnly';
import { patchOf, slotOfRow, storedValue, valueOf } from './values';

export interface Judging {
  readonly db: Db;
  readonly holds: Holds;
  readonly sitting: number;
  readonly formId: number;
  readonly paper: FullPaper;
  readonly time: SittingTime;
}

const recordOf = (row: JournalRow): EntryRecord => ({
  hold: row.hold,
  number: row.number,
  about: row.about,
  target: row.target,
  claimedAt: row.claimedAt,
  arrivedAt: row.arrivedAt,
  order: row.arrival,
  aside: row.aside,
  base: patchOf(row)?.base ?? null,
  restored: row.restored === null ? null : (JSON.parse(row.restored) as EntryRef),
});

function holdRecord({ db, holds }: Judging, state: HoldState): HoldRecord {
  holds.checkOldHeads(state);
  const find = sittingQueries(db);
  const key = { sitting: state.sitting, hold: state.number };
  const { number, grantedAt, chain } = state;
  const entries = find.entriesOf(key).map(recordOf);
  return { number, grantedAt, broken: chain.broken, heads: find.headsOf(key), entries };
}

const decidedQuery = perDatabase((db) =>
  db
    .select()
    .from(decisions)
    .where(and(eq(decisions.sittingId, sql.placeholder('sitting')), isNotNull(decisions.decidedAt)))
    .prepare(),
);

/** What coordinators decided of a sitting, as the judge takes it. */
export const decidedOf = (db: Db, sitting: number): Decided[] =>
  decidedQuery(db)
    .all({ sitting })
    .flatMap(({ kind, target, facts, choice }): Decided[] => {
      if (kind === 'late-entries') return [{ kind: 'late', upTo: facts.upTo!, count: choice === 'take' }];
      if (kind === 'writing-in-stop') return [{ kind: 'stop', target, without: choice === 'leave' }];
      if ((kind === 'two-versions' || kind === 'out-of-turn') && choice === 'take')
        return [{ kind: 'version', target, choose: facts.other! }];
      return [];
    });

/** Judges a sitting from its rows; `supposed` are decisions that have not been made. */
export function judge(judging: Judging, now: number, supposed: readonly Decided[] = []): Judged {
  const { db, holds, sitting, paper, time } = judging;
  const find = sittingQueries(db);
  const record = {
    holds: holds.of(sitting).map((state) => holdRecord(judging, state)),
    time,
    decided: [...decidedOf(db, sitting), ...supposed],
    limitedSection: (target: string) => sectionOfTarget(paper, target),
    readable: (entry: EntryRecord) => {
      const value = valueOf(find, sitting, entry);
      return value !== null && fitsText(paper, entry, value.text);
    },
    turns: forwardOnlyForJudge(judging),
  };
  return judgeSitting(record, now);
}

/** Makes the judge's winners the current answers. What no longer counts is taken away. */
export function storeWinners({ db, sitting }: Judging, { winners }: Judged): void {
  const find = sittingQueries(db);
  const stay = new Set<string>();
  for (const { entry } of winners.values()) {
    const slot = slotOfRow(entry);
    stay.add(`${slot.about} ${slot.target}`);
    const before = find.currentAt(sitting, slot.about, slot.target);
    if (before?.hold === entry.hold && before.number === entry.number) continue;
    const { text, depth } = valueOf(find, sitting, entry)!;
    const { hold, number } = entry;
    find.setCurrent({ sittingId: sitting, ...slot, hold, number, depth, value: storedValue(entry, text) });
  }
  for (const { about, target } of find.currentOf(sitting)) {
    // Pages of joined phones were judged when they came.
    if (about === 'page' || stay.has(`${about} ${target}`)) continue;
    const gone = and(
      eq(currentAnswers.sittingId, sitting),
      eq(currentAnswers.about, about),
      eq(currentAnswers.target, target),
    );
    db.delete(currentAnswers).where(gone).run();
  }
}
