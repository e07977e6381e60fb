import { asc, count, desc, eq, sql } from 'drizzle-orm';
import Joi from 'joi';
import { wholeForm } from '../../core/forms/drawForm';
import type { PaperRow } from '../../core/papers/importApi';
import { record } from '../audit/record';
import { papers, paperVersions, rounds } from '../db/schema';
import { forStaff, idParams, type Endpoint } from '../http/endpoint';
import { badRequest, notFound } from '../http/errors';
import { listEndpoints } from '../reading/listEndpoints';
import { likeOf, type Listing } from '../reading/read';
import type { Services } from '../services';
import { importPaper } from './importPaper';
import { paperById } from './papers';

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

const importParams = Joi.object<{ how: 'check' | 'publish' }>({
  how: Joi.valid('check', 'publish').required(),
});

const paperFile = { type: 'application/octet-stream', limit: '100mb' } as const;

export function paperEndpoints(services: Services): Endpoint[] {
  const roles = ['coordinator'] as const;
  return [
    ...listEndpoints(services, papersList, '/papers', (path, answer) =>
      forStaff(roles, { method: 'get', path }, (_, { request }) => answer(null, request)),
    ),
    forStaff(roles, { method: 'get', path: '/papers/:id', params: idParams }, (_, { params }) => {
      const paper = paperById(services.db, params.id);
      if (!paper) throw notFound('noPaper');
      return wholeForm(paper).paper;
    }),
    forStaff<unknown, { how: 'check' | 'publish' }>(
      roles,
      { method: 'post', path: '/papers/import/:how', params: importParams, body: paperFile },
      async (who, { params, body }) => {
        if (!(body instanceof Uint8Array)) throw badRequest('malformed');
        const report = await importPaper(services, body, params.how === 'publish');
        if (report.published !== null)
          record(services, { staffId: who.id, act: 'imported-paper', subject: `paper ${report.published}` });
        return report;
      },
    ),
  ];
}
