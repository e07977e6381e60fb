import { rm, statfs, writeFile } from 'node:fs/promises';
import path from 'node:path';
import { settings } from '../db/schema/index';
import type { Troubles } from '../machine/troubles';
import type { HasConfig } from '../config';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasJobs } from '../jobs/jobQueue';
import type { HasClock } from '../machine/clock';
import type { HasTroubles } from '../machine/troubles';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasCommits, HasTroubles, HasJobs {}

/** Below this much room people are told before it is too late; bytes. */
const LOW_BYTES = 200 * 1024 * 1024;
/** A commit that went well this short a time ago shows what a probe would; ms. */
const FRESH_MS = 5000;

type Here = Needs;

/** Tries to write, where nobody has just done so; whatever keeps it from that is noted. */
async function tryToWrite({ db, config, commits, clock, troubles }: Here): Promise<void> {
  if (commits.wellSinceMs() < FRESH_MS) return;
  try {
    const file = path.join(config.dataFolder, '.probe');
    await writeFile(file, String(clock.now()));
    await rm(file);
    const value = String(clock.now());
    await commits.run(
      () =>
        void db
          .insert(settings)
          .values({ key: 'probe', value })
          .onConflictDoUpdate({ target: settings.key, set: { value } })
          .run(),
    );
    troubles.wrote();
  } catch (error) {
    troubles.take(error);
  }
}

async function lookAtDisk({ config, troubles }: Here): Promise<void> {
  const { bavail, bsize } = await statfs(config.dataFolder);
  if (bavail * bsize < LOW_BYTES) troubles.note('disk-low');
  else troubles.over('disk-low');
}

const running = new WeakMap<Troubles, Promise<void>>();

/**
 * Looks after everything that people who run the server have to know; asked by health, and again and again. One at a time:
 * health can be asked by anybody, and as often as they like.
 */
export function probe(here: Here): Promise<void> {
  const { troubles } = here;
  const own = running.get(troubles) ?? look(here).finally(() => running.delete(troubles));
  running.set(troubles, own);
  return own;
}

async function look(here: Here): Promise<void> {
  const { jobs, clock, troubles } = here;
  await tryToWrite(here);
  try {
    await lookAtDisk(here);
    const failed = jobs.countFailed();
    if (failed > 0) troubles.note('jobs-failed', { count: failed });
    else troubles.over('jobs-failed');
  } catch (error) {
    troubles.take(error);
  }
  const doubt = clock.doubt();
  if (doubt) troubles.note('clock', { aheadMs: doubt.aheadMs });
  else troubles.over('clock');
}
