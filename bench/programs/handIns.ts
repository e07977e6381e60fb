import type Sqlite from 'better-sqlite3';
import { storeResponse } from '../../core/kinds/stored';
import { systemClock } from '../../server/machine/clock';
import { ApiClient } from '../../server/testing/ApiClient';
import { TestDevice } from '../../server/testing/TestDevice';
import type { BenchApp } from '../BenchApp';

const TARGET = 'strongest-lot/A';

/** Right in every case; what is printed makes each program another one. */
export const right = (n: number): string => `# ${n}
def strongest(lots):
    best, best_share = "", -1.0
    for lot in lots:
        if lot["sown"] == 0:
            continue
        share = lot["up"] / lot["sown"]
        if share > best_share:
            best, best_share = lot["name"], share
    return best
`;
/** Loops in the case with many lots, and is right in the others. */
export const looping = (n: number): string =>
  right(n).replace('    best, best_share', '    while len(lots) > 30: pass\n    best, best_share');

/** The desk of a candidate that sits already. */
export async function openDesk(app: BenchApp, cookie: string): Promise<TestDevice> {
  const device = await TestDevice.open(new ApiClient(app.url, cookie), systemClock);
  if (!device) throw new Error('the desk was not opened');
  return device;
}

export const writeProgram = (device: TestDevice, program: string): void =>
  void device.write(
    TARGET,
    storeResponse('code', { language: 'python', programs: { python: { 'program.py': program } } }),
  );

/** Opens desks, and hands in one program at each. */
export async function handIn(
  app: BenchApp,
  cookies: readonly string[],
  program: (n: number) => string,
): Promise<void> {
  const one = async (cookie: string, n: number) => {
    const device = await openDesk(app, cookie);
    writeProgram(device, program(n));
    const { status } = await device.save();
    if (status !== 200) throw new Error(`a program was not saved: ${status}`);
    await device.finish();
  };
  await Promise.all(cookies.map(one));
}

export interface Scored {
  readonly sittings: number;
  /** Runs kept, and those of a part that has more than one. */
  readonly runs: number;
  readonly runTwice: number;
  /** Marks of the machine for the program, and components that were marked more than once. */
  readonly marks: number;
  readonly markedTwice: number;
  readonly full: number;
}

/** How far the scoring of the programs has come. */
export function scored(db: Sqlite.Database): Scored {
  const one = (query: string) => (db.prepare(query).get(TARGET) as { n: number }).n;
  const marks = `from marks where target = ? and role = 'machine'`;
  return {
    sittings: one(
      'select count(*) as n from sittings where scored_at is not null and id in (select sitting_id from evidence where target = ?)',
    ),
    runs: one('select count(*) as n from evidence where target = ?'),
    runTwice: one(
      'select count(*) as n from (select 1 from evidence where target = ? group by sitting_id having count(*) > 1)',
    ),
    marks: one(`select count(*) as n ${marks}`),
    markedTwice: one(
      `select count(*) as n from (select 1 ${marks} group by sitting_id, component having count(*) > 1)`,
    ),
    full: one(
      `select count(*) as n from (select sum(hundredths) as sum ${marks} group by sitting_id) where sum = 600`,
    ),
  };
}

/** Waits until so many scripts are scored; null where it takes longer than it may. */
export async function untilScored(app: BenchApp, count: number, mostMs: number): Promise<number | null> {
  const from = performance.now();
  for (;;) {
    if (scored(app.db.$client).sittings >= count) return performance.now() - from;
    if (performance.now() - from > mostMs) return null;
    await new Promise((again) => setTimeout(again, 100));
  }
}
