/*
 * The fault suite: simulated candidates with essays of 3,000 words against the real server through a bad network, with
 * the server killed by `-9`, a backup restored (devices hold entries that it has lost), the disk filled once, clocks that
 * jump, second devices that take over, and clients that lie. Afterwards every essay is what its device has, everything
 * that a device holds of its last hold is in the database once, and every receipt verifies, the first ones included.
 * `--short` is the form for CI.
 */
import 'fake-indexeddb/auto';
import { rmSync, statfsSync, writeFileSync } from 'node:fs';
import path from 'node:path';
import Sqlite from 'better-sqlite3';
import { receiptCode } from '../../core/journal/receipt';
import { seededRandom } from '../../core/random';
import { verifyReceipts } from '../../server/sittings/verifyReceipts';
import { BenchApp } from '../BenchApp';
import { FaultProxy } from './FaultProxy';
import { killWithPrograms } from './programs';
import { LyingDesk } from './LyingDesk';
import { Caller, ESSAY, SimulatedDesk } from './SimulatedDesk';

const short = process.argv.includes('--short');
const CANDIDATES = short ? 24 : 80;
const LIARS = short ? 4 : 10;
/** Candidates whose device goes offline and is taken over by a second one. */
const TAKEN_OVER = short ? 4 : 15;
const KILLS = short ? 1 : 6;
const BACKUP_MS = short ? 3000 : 120_000;
const TYPING_MS = short ? 10_000 : 200_000;
const KEY_MS = 800;
const WORDS = 3000;
const DISK_MB = short ? 64 : 512;
const FULL_MS = 3000;

const random = seededRandom(process.env.FAULTS_SEED ?? 'faults');
const wait = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));
const app = await BenchApp.open({ megabytes: DISK_MB });
const { proxy, url } = await FaultProxy.open(app.url, random);
const word = () => 'supply bay dipped night alarm count lots kept'.split(' ')[Math.floor(random() * 8)]!;
const essay = () => Array.from({ length: WORDS }, word).join(' ');
const cookies = app.openSittings(CANDIDATES + LIARS);
const callers = cookies.map((cookie) => new Caller(url, cookie));
const honest = callers.slice(0, CANDIDATES);
const first = await Promise.all(
  honest.map((caller, n) => new SimulatedDesk(caller, `first-${n}`, essay(), random).open()),
);
const liars = callers.slice(CANDIDATES).map((caller) => new LyingDesk(caller, random));
/** The device that hands in, for each candidate. */
const desks = [...first];

let typing = true;
const keys = desks.map(async (_, n) => {
  while (typing) {
    desks[n]!.type();
    await wait(random() * 2 * KEY_MS);
  }
});
const lies = liars.map(async (liar) => {
  while (typing) {
    await liar.act();
    await wait(random() * 500);
  }
});

const rows = <T>(query: string, ...values: unknown[]): T[] => {
  const db = new Sqlite(path.join(app.folder, 'clear-sitting.sqlite'), { readonly: true });
  const found = db.prepare(query).all(...values) as T[];
  db.close();
  return found;
};

/** Entries of a device's present hold in the database. */
const inDatabase = (desk: SimulatedDesk): Set<number> =>
  new Set(
    rows<{ number: number }>(
      `select journal.number from journal join sittings on sittings.id = journal.sitting_id
       join holds on holds.sitting_id = sittings.id and holds.number = journal.hold
       where device_name = ? and token = ? and variant = 0`,
      desk.sitting,
      desk.journal.head().token,
    ).map((row) => row.number),
  );

let missing = 0;
/** Kills the server, and looks whether all that was acknowledged is there. */
async function killAndLook(): Promise<void> {
  const promised = desks.map((desk) => ({ desk, held: desk.held, token: desk.journal.head().token }));
  await app.killHard();
  for (const { desk, held, token } of promised) {
    if (desk.journal.head().token !== token) continue;
    const found = inDatabase(desk);
    for (let number = 1; number <= held; number++) if (!found.has(number)) missing++;
  }
  await app.start();
}

/** Puts an old backup in the place of the database: what was acknowledged since is only on the devices. */
async function restore(): Promise<void> {
  await app.killHard();
  app.restore();
  await app.start();
}

/** Leaves no room at all for a while: nothing can be kept, so nothing may be acknowledged. */
async function fillDisk(): Promise<number> {
  if (!app.small) return 0;
  const junk = path.join(app.folder, 'junk');
  const { bavail, bsize } = statfsSync(app.folder);
  try {
    writeFileSync(junk, Buffer.alloc(bavail * bsize));
  } catch {
    // Filled to the last byte: that is what was wanted.
  }
  await wait(FULL_MS);
  rmSync(junk, { force: true });
  return 1;
}

/** Some devices lose their network and write on; others of the same candidates take over, with essays of their own. */
async function takeOver(): Promise<void> {
  const lost = first.slice(0, TAKEN_OVER);
  for (const desk of lost) desk.offline = true;
  await wait(short ? 1000 : 5000);
  await Promise.all(
    lost.map(async (desk, n) => {
      const second = new SimulatedDesk(desk.caller, `second-${n}`, essay(), random);
      desks[n] = await second.open();
    }),
  );
}

const from = Date.now();
let fills = 0;
const acts: (() => Promise<unknown>)[] = [
  ...Array.from({ length: Math.ceil(KILLS / 2) }, () => killAndLook),
  async () => (fills += await fillDisk()),
  takeOver,
  ...Array.from({ length: Math.floor(KILLS / 2) }, () => killAndLook),
];
const between = (TYPING_MS - BACKUP_MS) / (acts.length + 1);
for (const act of acts) {
  await wait(between * (0.5 + random()));
  await act();
}
await app.backUp();
await wait(BACKUP_MS);
const acknowledgedSince = desks.reduce((sum, desk) => sum + desk.held, 0);
await restore();
const lostByTheBackup = acknowledgedSince - desks.reduce((sum, desk) => sum + inDatabase(desk).size, 0);
await wait(short ? 2000 : 10_000);
typing = false;
await Promise.all([...keys, ...lies]);
proxy.bad = false;
// The devices that were offline come back: their versions lose, and are kept.
for (const desk of first.slice(0, TAKEN_OVER)) desk.offline = false;
await Promise.all(first.slice(0, TAKEN_OVER).map((desk) => desk.deliver()));
await Promise.all([...desks.map((desk) => desk.finish()), ...liars.map((liar) => liar.finish())]);

let [lost, entries, wrongEssays] = [0, 0, 0];
for (const desk of desks) {
  const found = inDatabase(desk);
  const { number } = desk.journal.head();
  entries += number;
  for (let n = 1; n <= number; n++) if (!found.has(n)) lost++;
  const [current] = rows<{ value: string }>(
    `select value from current_answers join sittings on sittings.id = sitting_id
     where device_name = ? and target = ? and about = 'answer'`,
    desk.sitting,
    ESSAY,
  );
  if (!current?.value.includes(JSON.stringify(desk.text))) wrongEssays++;
}
const codes = new Set(
  rows<{ hash: string }>('select hash from receipts').map(({ hash }) => receiptCode(hash)),
);
const shown = desks.flatMap((desk) => desk.shown);
const receipts = verifyReceipts(app.db);
const [{ n: versions }] = rows<{ n: number }>(
  'select count(distinct sitting_id) as n from journal where hold > 1 and variant = 0',
) as [{ n: number }];
proxy.close();
const programs = await killWithPrograms(app);
await app.close();

const report = {
  candidates: CANDIDATES,
  liars: LIARS,
  takenOver: TAKEN_OVER,
  wordsAnEssay: WORDS,
  seconds: Math.round((Date.now() - from) / 1000),
  entriesOfLastHolds: entries,
  lost,
  wrongEssays,
  acknowledgedMissingAtARestart: missing,
  acknowledgedEntriesTheBackupLacked: lostByTheBackup,
  kills: KILLS,
  diskFills: fills,
  holdsRenewed: desks.reduce((sum, desk) => sum + desk.renewals, 0),
  sittingsWithSeveralHolds: versions,
  refusedAnswers: callers.reduce((sum, caller) => sum + caller.refused, 0),
  brokenAnswers: callers.reduce((sum, caller) => sum + caller.broken, 0),
  network: proxy.counts,
  receipts: receipts.checked,
  receiptsBroken: receipts.broken.length,
  receiptsShown: shown.length,
  receiptsShownAndUnknown: shown.filter((code) => !codes.has(code)).length,
  programs,
};
console.log(JSON.stringify(report, null, 2));
const well =
  lost === 0 &&
  wrongEssays === 0 &&
  missing === 0 &&
  report.brokenAnswers === 0 &&
  shown.length === CANDIDATES &&
  report.receiptsShownAndUnknown === 0 &&
  receipts.checked >= CANDIDATES + LIARS &&
  receipts.broken.length === 0 &&
  programs.processesLeft === 0 &&
  programs.scoredAll &&
  programs.runTwice === 0 &&
  programs.markedTwice === 0;
console.log(well ? 'Nothing was lost.' : 'SOMETHING WAS LOST.');
process.exit(well ? 0 : 1);
