/* `npm run verify-receipts`: is what is kept of every handed-in script still exactly what its receipt proves? */
import { existsSync } from 'node:fs';
import path from 'node:path';
import { readConfig } from '../config';
import { openDatabase, type Db } from '../db/open';
import { eq } from 'drizzle-orm';
import { receipts, sittings } from '../db/schema';
import { receiptHolds } from './receipts';

/** All receipts there are, first ones included, and the scripts whose journal no longer holds what one proves. */
export function verifyReceipts(db: Db): { readonly checked: number; readonly broken: readonly string[] } {
  const all = db
    .select({ receipt: receipts, script: sittings.script })
    .from(receipts)
    .innerJoin(sittings, eq(sittings.id, receipts.sittingId))
    .all();
  const broken = all.filter(({ receipt }) => !receiptHolds(db, receipt));
  return { checked: all.length, broken: [...new Set(broken.map(({ script }) => script))] };
}

if (import.meta.url === `file://${process.argv[1]}`) {
  const file = path.join(readConfig(process.env).dataFolder, 'clear-sitting.sqlite');
  // Opening would make an empty one, in which all is well.
  if (!existsSync(file)) {
    console.error(`There is no database at ${file}. Name its folder with CLEAR_SITTING_DATA.`);
    process.exit(2);
  }
  const db = openDatabase(file);
  const { checked, broken } = verifyReceipts(db);
  console.log(
    `${file}: ${checked} receipts checked, ${broken.length} broken${broken.length ? `: ${broken.join(', ')}` : ''}`,
  );
  db.$client.close();
  process.exit(broken.length > 0 ? 1 : 0);
}
