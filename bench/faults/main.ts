/*
 * The fault suite: simulated candidates against the real server through a bad network, with the server killed by `-9`,
 * the disk filled once, and clocks that jump. Afterwards every entry that any device held is in the database exactly
 * once, every acknowledged one was there at every restart, and every receipt verifies. `--short` is the form for CI.
 */
import { rmSync, statfsSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { receiptCode } from '../../core/journal/receipt';
import { seededRandom } from '../../core/random';
import { verifyReceipts } from '../../server/sittings/verifyReceipts';
import { BenchHouse } from '../BenchHouse';
import { FaultProxy } from './FaultProxy';
import { SimulatedDesk } from './SimulatedDesk';

const short = process.argv.includes('--short');
const CANDIDATES = short ? 40 : 200;
const KILLS = short ? 2 : 8;
const TYPING_MS = short ? 12_000 : 90_000;
const KEY_MS = 400;
const DISK_MB = short ? 48 : 256;
const FULL_MS = 3000;

const random = seededRandom(process.env.FAULTS_SEED ?? 'faults');
const wait = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));
const house = await BenchHouse.open({ megabytes: DISK_MB });
const { proxy, url } = await FaultProxy.open(house.url, random);
const desks = house.openSittings(CANDIDATES).map((cookie) => new SimulatedDesk(url, cookie, random));

/** Rows of the journal, read beside the server (or while it is dead). */
function kept(): Map<string, Set<number>> {
  const db = new Sqlite(path.join(house.folder, 'clear-sitting.sqlite'), { readonly: true });
  const found = new Map<string, Set<number>>();
  for (const { device, seq } of db.prepare('select device, seq from journal').all() as {
    device: string;
    seq: number;
  }[])
    found.set(device, (found.get(device) ?? new Set()).add(seq));
  db.close();
  return found;
}

let [missing, typing] = [0, true];
const keys = desks.map(async (desk) => {
  while (typing) {
    desk.type();
    await wait(random() * 2 * KEY_MS);
  }
});

async function killAndLook(): Promise<void> {
  const promised = desks.map((desk) => [desk.device, [...desk.acknowledged]] as const);
  await house.killHard();
  const found = kept();
  for (const [device, seqs] of promised) missing += seqs.filter((seq) => !found.get(device)?.has(seq)).length;
  await house.start();
}

/** Leaves no room at all for a while: nothing can be kept, so nothing may be acknowledged. */
async function fillDisk(): Promise<number> {
  if (!house.small) return 0;
  const junk = path.join(house.folder, 'junk');
  const { bavail, bsize } = statfsSync(house.folder);
  try {
    writeFileSync(junk, Buffer.alloc(bavail * bsize));
  } catch {
    // Filled to the last byte: that is what was wanted.
  }
  await wait(FULL_MS);
  rmSync(junk, { force: true });
  return 1;
}

const from = Date.now();
const acts = [...Array.from({ length: KILLS }, () => killAndLook), fillDisk];
let fills = 0;
for (const act of acts) {
  await wait((TYPING_MS / (acts.length + 1)) * (0.5 + random()));
  fills += (await act()) ?? 0;
}
await wait(Math.max(0, TYPING_MS - (Date.now() - from)));
typing = false;
await Promise.all(keys);
proxy.bad = false;
await Promise.all(desks.map((desk) => desk.finish()));

const found = kept();
const held = desks.reduce((sum, desk) => sum + desk.journal.all.length, 0);
const inDatabase = [...found.values()].reduce((sum, seqs) => sum + seqs.size, 0);
const lost = desks.reduce(
  (sum, desk) => sum + desk.journal.all.filter((e) => !found.get(desk.device)?.has(e.seq)).length,
  0,
);
const rows = new Sqlite(path.join(house.folder, 'clear-sitting.sqlite'), { readonly: true });
const { n: all } = rows.prepare('select count(*) as n from journal').get() as { n: number };
const codes = new Set(
  (
    rows.prepare('select receipt_hash as hash from sittings where receipt_hash is not null').all() as {
      hash: string;
    }[]
  ).map(({ hash }) => receiptCode(hash)),
);
rows.close();
const receipts = verifyReceipts(house.db);
const strange = desks.filter((desk) => !codes.has(desk.receipt!.code)).length;
proxy.close();
await house.close();

const report = {
  candidates: CANDIDATES,
  seconds: Math.round((Date.now() - from) / 1000),
  entriesHeld: held,
  entriesInDatabase: inDatabase,
  rowsInDatabase: all,
  lost,
  acknowledgedMissingAtARestart: missing,
  kills: KILLS,
  diskFills: fills,
  refusedAnswers: desks.reduce((sum, desk) => sum + desk.refused, 0),
  network: proxy.counts,
  receipts: receipts.checked,
  receiptsBroken: receipts.broken.length,
  receiptsUnknown: strange,
};
console.log(JSON.stringify(report, null, 2));
const well =
  lost === 0 &&
  missing === 0 &&
  held === inDatabase &&
  held === all &&
  receipts.checked === CANDIDATES &&
  receipts.broken.length === 0 &&
  strange === 0;
console.log(well ? 'Nothing was lost.' : 'SOMETHING WAS LOST.');
process.exit(well ? 0 : 1);
