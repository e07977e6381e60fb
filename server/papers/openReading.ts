import path from 'node:path';
import { count, max } from 'drizzle-orm';
import type { Config } from '../config';
import { openForReading } from '../db/open';
import { keyCorrections } from '../db/schema/index';
import { forgetPapers } from './papers';
import type { Reading } from '../reading/read';

/**
 * The database as a helper process reads it, at the server's time of each question. Papers are kept parsed; one that was
 * corrected since judges in another way.
 */
export function openReading(config: Config): (now: number) => Reading {
  const db = openForReading(path.join(config.dataFolder, 'clear-sitting.sqlite'));
  let corrections = '';
  return (now) => {
    const { newest, finished } = db
      .select({ newest: max(keyCorrections.id), finished: count(keyCorrections.finishedAt) })
      .from(keyCorrections)
      .get()!;
    const seen = `${newest} ${finished}`;
    if (seen !== corrections) forgetPapers(db);
    corrections = seen;
    return { db, config, clock: { now: () => now } };
  };
}
