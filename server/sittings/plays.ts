import { and, count, eq, isNull, max, sql } from 'drizzle-orm';
import { countedIn } from '../../core/documents/filesIn';
import { wholeForm } from '../../core/forms/drawForm';
import { documentsIn } from '../../core/papers/candidatePaper';
import type { FullPaper } from '../../core/papers/paper';
import type { PlayCounts } from '../../core/sittings/api';
import type { Db } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { playGrants, playReturns } from '../db/schema';

/** A recording whose plays are counted. */
export interface Counted {
  readonly title: string;
  readonly plays: number;
}

const known = new WeakMap<FullPaper, ReadonlyMap<string, Counted>>();

/** The recordings of a paper whose plays are counted, by file; worked out once a paper. */
export function countedOf(paper: FullPaper): ReadonlyMap<string, Counted> {
  const counted = known.get(paper) ?? countedIn(documentsIn(wholeForm(paper).paper));
  known.set(paper, counted);
  return counted;
}

const queriesOf = perDatabase((db) => {
  const p = sql.placeholder;
  const own = eq(playGrants.sittingId, p('sitting'));
  const ofFile = and(own, eq(playGrants.file, p('file')));
  return {
    granted: db
      .select({ file: playGrants.file, n: max(playGrants.number) })
      .from(playGrants)
      .where(own)
      .groupBy(playGrants.file)
      .prepare(),
    returned: db
      .select({ file: playReturns.file, n: count() })
      .from(playReturns)
      .where(eq(playReturns.sittingId, p('sitting')))
      .groupBy(playReturns.file)
      .prepare(),
    unused: db
      .select({ file: playGrants.file, number: playGrants.number })
      .from(playGrants)
      .where(and(own, isNull(playGrants.usedAt)))
      .orderBy(playGrants.number)
      .prepare(),
    open: db
      .select({ number: playGrants.number })
      .from(playGrants)
      .where(and(ofFile, eq(playGrants.hold, p('hold')), isNull(playGrants.usedAt)))
      .limit(1)
      .prepare(),
    grant: db
      .insert(playGrants)
      .values({
        sittingId: p('sitting'),
        file: p('file'),
        number: p('number'),
        hold: p('hold'),
        grantedAt: p('now'),
      })
      .prepare(),
    used: db
      .update(playGrants)
      .set({ usedAt: sql`${p('now')}` })
      .where(and(ofFile, isNull(playGrants.usedAt), sql`${playGrants.number} <= ${p('number')}`))
      .prepare(),
    giveBack: db
      .insert(playReturns)
      .values({ sittingId: p('sitting'), file: p('file'), at: p('now') })
      .prepare(),
  };
});

/** Whose play, of what, and when. */
export interface PlayAsked {
  readonly sitting: number;
  readonly paper: FullPaper;
  readonly file: string;
  readonly hold: number;
  readonly now: number;
}

/**
 * Plays are counted, not merged: the server grants one at a time to a hold, and the device uses it before the sound
 * starts. One that was granted counts against the candidate, used or not, as soon as another hold asks: the device that
 * had it may have played it without a connection. It is given back when that device says that it did not.
 */
export class Plays {
  private readonly db: Db;
  constructor(db: Db) {
    this.db = db;
  }

  countsOf(sitting: number, paper: FullPaper): PlayCounts {
    const counted = countedOf(paper);
    if (counted.size === 0) return {};
    const find = queriesOf(this.db);
    const granted = new Map(find.granted.all({ sitting }).map(({ file, n }) => [file, n ?? 0]));
    const returned = new Map(find.returned.all({ sitting }).map(({ file, n }) => [file, n]));
    const unused = find.unused.all({ sitting });
    return Object.fromEntries(
      [...counted].map(([file, { plays }]) => [
        file,
        {
          allowed: plays + (returned.get(file) ?? 0),
          granted: granted.get(file) ?? 0,
          unused: unused.flatMap((one) => (one.file === file ? [one.number] : [])),
        },
      ]),
    );
  }

  /** The number of the play that this hold may use: the one it has not used yet, or a new one; null where none is left. */
  grant({ sitting, paper, file, hold, now }: PlayAsked): number | null {
    const open = queriesOf(this.db).open.get({ sitting, file, hold });
    if (open) return open.number;
    const counts = this.countsOf(sitting, paper)[file];
    if (!counts || counts.granted >= counts.allowed) return null;
    const number = counts.granted + 1;
    queriesOf(this.db).grant.run({ sitting, file, number, hold, now });
    return number;
  }

  /**
   * A device says that it has used plays up to this number. Those that this server does not know (it was restored from a
   * copy) are used all the same: a claim of use only takes away.
   */
  use({ sitting, paper, file, hold, now }: PlayAsked, number: number): void {
    const counts = this.countsOf(sitting, paper)[file];
    if (!counts) return;
    const find = queriesOf(this.db);
    for (let n = counts.granted + 1; n <= Math.min(number, counts.allowed); n++)
      find.grant.run({ sitting, file, number: n, hold, now });
    find.used.run({ sitting, file, number, now });
  }

  /**
   * A device that has lost the desk gives back the play that it held ready and did not use: there is one more then for
   * the device that has the desk. One that is unknown, used or given back already changes nothing.
   */
  returnUnused({ sitting, file, hold, now }: Omit<PlayAsked, 'paper'>): void {
    const open = queriesOf(this.db).open.get({ sitting, file, hold });
    if (!open) return;
    queriesOf(this.db).used.run({ sitting, file, number: open.number, now });
    this.giveBack(sitting, file, now);
  }

  giveBack(sitting: number, file: string, now: number): void {
    queriesOf(this.db).giveBack.run({ sitting, file, now });
  }
}
