import { asc, count, desc, eq, sql } from 'drizzle-orm';
import type { PaperRow } from '../../core/papers/importApi';
import { papers, paperVersions, rounds } from '../db/schema';
import { likeOf, type Listing } from '../reading/read';

const title = sql<string>`json_extract(${paperVersions.document}, '$.title')`;

/** The published versions of all papers: the newest of each paper first. */
export const papersList: Listing<null, PaperRow> = {
  name: 'papers',
  list: ({ db }, _, { search, from, size }) => {
    const where = search === '' ? undefined : sql`${title} like ${likeOf(search)} escape '\\'`;
    const used = db
      .select({ version: rounds.paperVersionId, n: count().as('n') })
      .from(rounds)
      .groupBy(rounds.paperVersionId)
      .as('used');
    const rows = db
      .select({
        id: paperVersions.id,
        key: papers.key,
        version: paperVersions.version,
        title,
        rounds: sql<number>`coalesce(${used.n}, 0)`,
      })
      .from(paperVersions)
      .innerJoin(papers, eq(papers.id, paperVersions.paperId))
      .leftJoin(used, eq(used.version, paperVersions.id))
      .where(where)
      .orderBy(asc(title), desc(paperVersions.version))
      .limit(size)
      .offset(from)
      .all();
    return { rows, count: db.select({ n: count() }).from(paperVersions).where(where).get()!.n };
  },
  cells: { title: (row) => row.title, version: (row) => row.version, rounds: (row) => row.rounds },
};
