import { createWriteStream, existsSync, mkdirSync, renameSync, rmSync } from 'node:fs';
import { finished } from 'node:stream/promises';
import path from 'node:path';
import { and, asc, desc, eq, isNotNull, isNull } from 'drizzle-orm';
import { Zip, ZipPassThrough } from 'fflate';
import type { PackState } from '../../core/results/api';
import { record } from '../audit/record';
import { invitations, packs, people, sittings } from '../db/schema';
import { conflict, notFound } from '../http/errors';
import { printSheetOf } from './printed';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasFiles } from '../files/files';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasClock } from '../machine/clock';
import type { HasPrinter } from '../printing/printer';
import type { HasReader } from '../reading/reader';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasCommits, HasFiles, HasReader, HasPrinter {}

type Pack = typeof packs.$inferSelect;

const shown = ({ id, at, done, of, cancelledAt, readyAt }: Pack): PackState => ({
  id,
  at,
  done,
  of,
  state: cancelledAt !== null ? 'cancelled' : readyAt !== null ? 'ready' : 'working',
});

const fileOf = ({ config }: HasConfig, id: number): string =>
  path.join(config.dataFolder, 'packs', `${id}.zip`);

const candidatesOf = ({ db }: HasDb, round: number) =>
  db
    .selectDistinct({ id: invitations.id, reference: people.reference })
    .from(invitations)
    .innerJoin(people, eq(people.id, invitations.personId))
    .innerJoin(sittings, eq(sittings.invitationId, invitations.id))
    .where(and(eq(invitations.roundId, round), isNotNull(sittings.closedAt)))
    .orderBy(asc(people.reference))
    .all();

export const packsOf = ({ db }: HasDb, round: number): PackState[] =>
  db.select().from(packs).where(eq(packs.roundId, round)).orderBy(desc(packs.id)).limit(10).all().map(shown);

const find = ({ db }: HasDb, round: number, id: number): Pack => {
  const pack = db
    .select()
    .from(packs)
    .where(and(eq(packs.id, id), eq(packs.roundId, round)))
    .get();
  if (!pack) throw notFound('noPack');
  return pack;
};

/** Begins a ZIP of all scripts of a round with their marks; one at a time. */
export function beginPack(
  services: HasClock & HasDb & HasJobs,
  staffId: number,
  roundId: number,
): PackState[] {
  const { db, clock, jobs } = services;
  if (packsOf(services, roundId).some(({ state }) => state === 'working')) throw conflict('pack-working');
  const of = candidatesOf(services, roundId).length;
  if (of === 0) throw conflict('nothing-handed-in');
  db.transaction(() => {
    const values = { roundId, staffId, at: clock.now(), done: 0, of };
    const { id } = db.insert(packs).values(values).returning().get();
    record(services, { staffId, act: 'made-pack', subject: `round ${roundId}` });
    jobs.add('pack', id);
  });
  return packsOf(services, roundId);
}

export function cancelPack(services: HasClock & HasDb, round: number, id: number): PackState[] {
  const pack = find(services, round, id);
  if (pack.readyAt === null)
    services.db
      .update(packs)
      .set({ cancelledAt: services.clock.now() })
      .where(and(eq(packs.id, id), isNull(packs.cancelledAt)))
      .run();
  return packsOf(services, round);
}

/** Where the finished ZIP lies. */
export function packFile(services: HasConfig & HasDb, round: number, id: number): string {
  const pack = find(services, round, id);
  const file = fileOf(services, id);
  if (pack.readyAt === null || !existsSync(file)) throw notFound('noPack');
  return file;
}

/** The job: one script after the other into a file, so that none of it is in memory at once. Started again after a restart. */
export async function makePack(services: Needs, id: number): Promise<void> {
  const { db, clock } = services;
  const isCancelled = () => db.select().from(packs).where(eq(packs.id, id)).get()?.cancelledAt !== null;
  const pack = db.select().from(packs).where(eq(packs.id, id)).get();
  if (!pack || isCancelled()) return;
  const file = fileOf(services, id);
  mkdirSync(path.dirname(file), { recursive: true });
  const draft = `${file}.part`;
  const out = createWriteStream(draft);
  const zip = new Zip((error, chunk, last) => {
    if (error) out.destroy(error);
    else if (last) out.end(chunk);
    else out.write(chunk);
  });
  let done = 0;
  for (const { id: invitation, reference } of candidatesOf(services, pack.roundId)) {
    if (isCancelled()) break;
    const bytes = await printSheetOf(services, { round: pack.roundId, invitation, blind: false });
    // A sitting that is void has no sheet.
    if (bytes) {
      const entry = new ZipPassThrough(`${reference}.pdf`);
      zip.add(entry);
      entry.push(bytes, true);
      if (out.writableNeedDrain) await new Promise<void>((go) => out.once('drain', () => go()));
    }
    done++;
    db.update(packs).set({ done }).where(eq(packs.id, id)).run();
  }
  zip.end();
  await finished(out);
  if (isCancelled()) {
    rmSync(draft, { force: true });
    return;
  }
  renameSync(draft, file);
  db.update(packs).set({ readyAt: clock.now() }).where(eq(packs.id, id)).run();
}
