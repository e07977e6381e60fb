import path from 'node:path';
import { max } from 'drizzle-orm';
import type { Config } from '../config';
import { openForReading } from '../db/open';
import { keyCorrections } from '../db/schema/index';
import { forgetPapers } from './papers';
import type { Reading } from '../reading/read';

/**
 * The database as a helper process reads it, at the server's time of each question. Papers are kept parsed; an answer that
 * was accepted since changes how one judges.
 */
export function openReading(config: Config): (now: number) => Reading {
  const db = openForReading(path.join(config.dataFolder, 'clear-sitting.sqlite'));
  let corrections: number | null = null;
  return (now) => {
    const newest = db
      .select({ id: max(keyCorrections.id) })
      .from(keyCorrections)
      .get()!.id;
    if (newest !== corrections) forgetPapers(db);
    corrections = newest;
    return { db, config, clock: { now: () => now } };
  };
}
