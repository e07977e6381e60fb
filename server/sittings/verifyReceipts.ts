/* `npm run verify-receipts`: is what is kept of every handed-in script still exactly what its receipt proves? */
import { existsSync } from 'node:fs';
import path from 'node:path';
import { isNotNull } from 'drizzle-orm';
import { readConfig } from '../config';
import { openDatabase, type Db } from '../db/open';
import { sittings } from '../db/schema';
import { receiptHashOf } from './receipt';

/** All receipts there are, and the scripts whose journal no longer folds to what was handed in. */
export function verifyReceipts(db: Db): { readonly checked: number; readonly broken: readonly string[] } {
  const closed = db.select().from(sittings).where(isNotNull(sittings.receiptHash)).all();
  const broken = closed.filter((s) => receiptHashOf({ db }, s.id) !== s.receiptHash);
  return { checked: closed.length, broken: broken.map((s) => s.script) };
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
