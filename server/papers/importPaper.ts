import { record } from '../audit/record';
import { desc, eq, max } from 'drizzle-orm';
import { adaptiveViews } from '../../core/papers/adaptiveApi';
import { wholeForm } from '../../core/forms/drawForm';
import { canonicalJson } from '../../core/journal/canonicalJson';
import type { FullPaper } from '../../core/papers/paper';
import type { ImportIssue, ImportReport } from '../../core/papers/importApi';
import { items, itemVersions, papers, paperVersions } from '../db/schema';
import type { ImportAsked, Imported } from './importHelper';
import { keepFiles } from './keepFiles';
import { publishPaper } from './papers';
import { refuseWithoutWall } from './secondWall';
import type { HasDb } from '../db/open';
import type { HasFiles } from '../files/files';
import type { HasClock } from '../machine/clock';
import type { HasEvidence } from '../scoring/findEvidence';
import { trySolutions } from './trySolutions';
import type { HasPaperReader } from './paperReader';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasFiles, HasPaperReader, HasEvidence {}

function known({ db }: HasDb): Pick<ImportAsked, 'items' | 'papers'> {
  const rows = db
    .select({ key: items.key, version: itemVersions.version, source: itemVersions.source })
    .from(itemVersions)
    .innerJoin(items, eq(items.id, itemVersions.itemId))
    .orderBy(desc(itemVersions.version))
    .all();
  const newest = new Map<string, { version: number; source: string | null }>();
  for (const { key, version, source } of rows) if (!newest.has(key)) newest.set(key, { version, source });
  const versions = db
    .select({ key: papers.key, version: max(paperVersions.version) })
    .from(paperVersions)
    .innerJoin(papers, eq(papers.id, paperVersions.paperId))
    .groupBy(papers.key)
    .all();
  return {
    items: Object.fromEntries(newest),
    papers: Object.fromEntries(versions.map(({ key, version }) => [key, version ?? 0])),
  };
}

/** What the authors' own solutions show, at their places in the file. */
async function issuesOfSolutions(services: Needs, paper: FullPaper): Promise<ImportIssue[]> {
  const places = paper.sections.flatMap(({ items: own }, s) =>
    own.map(({ key }, i) => ({ key, at: [s, i] })),
  );
  const tried = await trySolutions(services, paper);
  return tried.map(({ item, part, issue }) => {
    const [s, i] = places.find(({ key }) => key === paper.bank[item]!.key)!.at;
    const path = ['sections', s, 'items', i, 'parts', part, 'content', ...issue.path].join('.');
    return { path, severity: issue.severity, message: issue.message };
  });
}

const nothing = { preview: null, adaptive: [], media: {}, changed: [], published: null } as const;

/** Reads a file and tells everything that is wrong with it; `publisher` keeps the paper where nothing is severe. */
export async function importPaper(
  services: Needs,
  bytes: Uint8Array,
  publisher: number | null,
): Promise<ImportReport> {
  const { db, paperReader } = services;
  const before = known(services);
  const { issues: found, paper, files: read, sources } = await paperReader.read({ bytes, ...before });
  if (!paper) return { issues: found, ...nothing };
  refuseWithoutWall(services, () => paper);
  const issues = [...found, ...(await issuesOfSolutions(services, paper))];
  if (issues.some((one) => one.severity === 'severe')) return { issues, ...nothing };
  const changed = paper.bank
    .filter((item) => before.items[item.key]?.version !== item.version)
    .map((item) => item.title);
  const shown = {
    preview: wholeForm(paper).paper,
    adaptive: adaptiveViews(paper),
    media: previewMedia(read),
  };
  if (publisher === null) return { issues, ...shown, changed, published: null };
  // Somebody else published while this file was read: the versions given to it may be taken.
  if (canonicalJson(known(services)) !== canonicalJson(before))
    return importPaper(services, bytes, publisher);
  keepFiles(services, read);
  const published = db.transaction(() => {
    const id = publishPaper(db, paper, sources);
    record(services, { staffId: publisher, act: 'imported-paper', subject: `paper ${id}` });
    return id;
  });
  return { issues, ...shown, changed, published };
}

/** What a preview before publication shows; a longer film can be looked at once the paper is published. */
const MOST_SHOWN = 4 * 1024 * 1024;

/** Files as data addresses, since nothing of a paper is kept before it is published. */
const previewMedia = (files: Imported['files']): ImportReport['media'] =>
  Object.fromEntries(
    files
      .filter(({ bytes }) => bytes.length <= MOST_SHOWN)
      .map(({ facts, type, bytes }) => [
        facts.hash,
        `data:${type};base64,${Buffer.from(bytes).toString('base64')}`,
      ]),
  );
