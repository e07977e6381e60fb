import { gt } from 'drizzle-orm';
import { allItems } from '../../core/papers/paper';
import type { Clock } from '../machine/clock';
import type { Db } from '../db/open';
import { rounds } from '../db/schema';
import { isReadable, paperOfVersion } from './papers';

/** The items of all rounds that are scheduled or open: whoever sits them must not learn the answers anywhere else. */
export function askedStill({ db, clock }: { readonly db: Db; readonly clock: Clock }): ReadonlySet<string> {
  const versions = db
    .selectDistinct({ id: rounds.paperVersionId })
    .from(rounds)
    .where(gt(rounds.closesAt, clock.now()))
    .all();
  const papers = versions.filter(({ id }) => isReadable(db, id)).map(({ id }) => paperOfVersion(db, id));
  return new Set(papers.flatMap((paper) => allItems(paper).map((item) => item.key)));
}
