import { cpSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { eq } from 'drizzle-orm';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { correct, previewCorrection } from './corrections/operations';
import type { MovableClock } from './machine/clock';
import { readConfig } from './config';
import type { Db } from './db/open';
import { decisions, rounds, sittings, staff } from './db/schema';
import { standingMark } from './marking/marks';
import { remark } from './marking/remarks';
import { sittingOfScript } from './marking/scripts';
import { signOff } from './marking/signOff';
import { release } from './results/release';
import { decide } from './rounds/decisions';
import { importPeople } from './rounds/importPeople';
import { killedAt } from './testing/killedAt';
import { bestOf, samplePaper } from './testing/samplePaper';
import { serve } from './testing/serve';
import { wire, type Wired } from './wire';

/*
 * Acts of staff, with the process killed before each of their writes: after the next start each has happened wholly or
 * not at all, its record, jobs and letters with it, and nothing is there twice.
 */

/** Of no act, or by chance. */
const LEFT_OUT = ['sqlite_sequence', '__drizzle_migrations', 'sessions', 'key_corrections'];
/** When a job ran and how often is no part of what it did. */
const COLUMNS = { jobs: 'kind, subject' } as Record<string, string>;

/** Everything that is in the database, as one text a row. */
function everythingIn(db: Db): string[] {
  const client = db.$client;
  const tables = client
    .prepare("select name from sqlite_master where type = 'table' order by name")
    .pluck()
    .all() as string[];
  return tables
    .filter((name) => !LEFT_OUT.includes(name))
    .flatMap((name) =>
      client
        .prepare(`select ${COLUMNS[name] ?? '*'} from ${name}`)
        .all()
        .map((row) => `${name} ${JSON.stringify(row)}`)
        .sort(),
    );
}

interface World {
  readonly round: number;
  readonly script: string;
}
let world: World;
const folder = mkdtempSync(path.join(tmpdir(), 'clear-sitting-acts-'));
const staffId = (db: Db) => db.select().from(staff).get()!.id;

/** The folder of before, as it was: two candidates have handed in, everything is scored. */
beforeAll(async () => {
  vi.useFakeTimers({ toFake: ['Date'], now: new Date('2026-11-20T10:00:00Z') });
  const app = await serve();
  app.staff('lead');
  const round = app.addRound(samplePaper());
  for (const typed of ['71.3', '71.4']) {
    const device = await app.sitting(app.invite(round));
    device.write('the-choice/A', bestOf('choice'));
    device.write('the-number/A', { version: 1, response: { typed } });
    await device.finish();
  }
  await app.wired.services.jobs.turn();
  const { db } = app.wired.services;
  const [first] = db.select().from(sittings).all();
  world = { round, script: first!.script };
  db.$client.pragma('wal_checkpoint(TRUNCATE)');
  cpSync(app.wired.services.config.dataFolder, folder, { recursive: true });
  await app.close();
});
afterAll(() => {
  vi.useRealTimers();
  rmSync(folder, { recursive: true, force: true });
});

/** A server on a copy of the folder; what jobs of other lanes do is none of an act's. */
function startOn(data: string): Wired {
  const config = readConfig({ CLEAR_SITTING_DATA: data, CLEAR_SITTING_TEST_CLOCK: 'true' });
  const wired = wire(config, 'silent');
  // An hour later the time of every sitting is over.
  (wired.services.clock as MovableClock).advance(3_600_000);
  for (const [kind, lane] of [
    ['score', 'scoring'],
    ['allocate', 'marking'],
    ['print-result', 'printing'],
  ] as const)
    wired.services.jobs.handle(kind, lane, () => undefined);
  return wired;
}

interface Act {
  /** Before it. */
  readonly given?: (wired: Wired) => void;
  /** Where it was not done, whoever does it does it again after the start. */
  readonly do: (wired: Wired) => void | Promise<void>;
  readonly done: (db: Db) => boolean;
}

const signedOff = ({ services: { db } }: Wired) =>
  void db
    .update(rounds)
    .set({ signedOffAt: 1, signedOffBy: staffId(db) })
    .run();
const LIST = new TextEncoder().encode(
  'Name,E-mail\nAda Fen,ada.fen@example.org\nBo Marsh,bo.marsh@example.org\nCandidate 1b,candidate.2@example.org\n',
);

const acts: Record<string, Act> = {
  'the sign-off': {
    do: ({ services }) => signOff(services, staffId(services.db), world.round),
    done: (db) => db.select().from(rounds).get()!.signedOffAt !== null,
  },
  'the release': {
    given: signedOff,
    do: ({ services }) => release(services, staffId(services.db), world.round),
    done: (db) => db.select().from(rounds).get()!.releasedAt !== null,
  },
  'a re-mark of a result that is out': {
    given: (wired) => {
      signedOff(wired);
      wired.services.db.update(rounds).set({ releasedAt: 1 }).run();
    },
    do: ({ services, outbox }) =>
      remark(services, outbox, staffId(services.db), world.round, {
        script: world.script,
        target: 'the-number/A',
        component: 'whole',
        before: standingMark(
          services.db,
          sittingOfScript(services.db, world.round, world.script).id,
          'the-number/A',
          'whole',
        )!.hundredths,
        hundredths: 50,
        reason: 'Read again.',
      }),
    done: (db) => everythingIn(db).some((row) => row.startsWith('audit') && row.includes('remarked')),
  },
  'a corrected key': {
    given: (wired) => wired.services.db.update(rounds).set({ releasedAt: 1 }).run(),
    do: async ({ services }) => {
      const change = { type: 'accept', component: 'whole', answer: '71.4' } as const;
      const { seen } = await previewCorrection(services, world.round, 'the-number/A', change);
      const who = { staffId: staffId(services.db), roundId: world.round };
      correct(services, who, 'the-number/A', { change, seen, reason: 'The scale was read so.' });
    },
    done: (db) => db.$client.prepare('select count(*) from key_corrections').pluck().get() === 1,
  },
  'a withdrawn part': {
    given: (wired) => wired.services.db.update(rounds).set({ releasedAt: 1 }).run(),
    do: async ({ services }) => {
      const change = { type: 'ruling', ruling: 'withdrawn' } as const;
      const { seen } = await previewCorrection(services, world.round, 'the-number/A', change);
      const who = { staffId: staffId(services.db), roundId: world.round };
      correct(services, who, 'the-number/A', { change, seen, reason: 'The scale was read so.' });
    },
    done: (db) => db.$client.prepare('select count(*) from key_corrections').pluck().get() === 1,
  },
  'a decision on a sitting': {
    given: ({ services: { db } }) =>
      db
        .insert(decisions)
        .values({
          sittingId: 1,
          kind: 'late-entries',
          target: '',
          facts: { count: 1, upTo: 99 },
          openedAt: 1,
        })
        .run(),
    do: ({ services, sittings: { closing } }) =>
      decide(
        services,
        closing,
        { staffId: staffId(services.db), roundId: world.round },
        { id: 1, choice: 'take', reason: 'The line was down.' },
      ),
    done: (db) => db.select().from(decisions).get()!.decidedAt !== null,
  },
  'a closing': {
    given: ({ services: { db } }) => {
      // As if the first had never been closed, with its time long over.
      db.$client.exec(
        "delete from receipts where sitting_id = 1; delete from time_events where sitting_id = 1 and json_extract(event, '$.type') = 'closed'; delete from jobs; delete from letters where json_extract(facts, '$.kind') = 'receipt'",
      );
      db.update(sittings)
        .set({ closedAt: null, settledAt: null, scoredAt: null, deadlineAt: 1 })
        .where(eq(sittings.id, 1))
        .run();
    },
    do: ({ sittings: operations }) => operations.sweep(),
    done: (db) => db.select().from(sittings).where(eq(sittings.id, 1)).get()!.closedAt !== null,
  },
};

describe.each(Object.entries(acts))('%s', (_, act) => {
  /** Killed at a write, started again, done again where it was not done; `write` null: not killed. */
  async function run(write: number | null) {
    const data = mkdtempSync(path.join(tmpdir(), 'clear-sitting-act-'));
    cpSync(folder, data, { recursive: true });
    let wired = startOn(data);
    const open: Wired[] = [wired];
    try {
      act.given?.(wired);
      const before = everythingIn(wired.services.db);
      const work = async () => {
        await act.do(wired);
        await wired.services.jobs.turn();
      };
      let killed = false;
      if (write === null) await work();
      else killed = await killedAt(wired.services.db.$client, write, work);
      let half: string[] | null = null;
      if (killed) {
        wired = startOn(data);
        open.push(wired);
        if (!act.done(wired.services.db)) {
          half = everythingIn(wired.services.db);
          await act.do(wired);
        }
        await wired.services.jobs.turn();
      }
      return { killed, before, half, after: everythingIn(wired.services.db) };
    } finally {
      for (const one of open) await one.close().catch(() => undefined);
      rmSync(data, { recursive: true, force: true });
    }
  }

  it('happens wholly or not at all, wherever the process is killed', async () => {
    const whole = await run(null);
    expect(whole.after).not.toEqual(whole.before);
    let write = 0;
    for (; write < 100; write++) {
      const { killed, half, after } = await run(write);
      if (!killed) break;
      if (half !== null) expect([write, half]).toEqual([write, whole.before]);
      expect([write, after]).toEqual([write, whole.after]);
    }
    expect(write).toBeGreaterThan(1);
  });
});

describe('an import of people', () => {
  const letters = (db: Db) => everythingIn(db).filter((row) => row.startsWith('letters ')).length;
  const invited = (db: Db) => everythingIn(db).filter((row) => row.startsWith('invitations ')).length;

  it('wherever the process is killed has invited some wholly; sent again it invites the others, each once', async () => {
    let write = 0;
    for (let killed = true; killed; write++) {
      const data = mkdtempSync(path.join(tmpdir(), 'clear-sitting-act-'));
      cpSync(folder, data, { recursive: true });
      const open = [startOn(data)];
      const send = ({ services, outbox }: Wired) =>
        importPeople(
          services,
          outbox,
          { roundId: world.round, staffId: staffId(services.db) },
          { bytes: LIST, columns: null, dryRun: false, names: 'list' },
        );
      try {
        const { db } = open[0]!.services;
        const before = { letters: letters(db), invited: invited(db) };
        killed = await killedAt(db.$client, write, () => send(open[0]!));
        if (killed) open.push(startOn(data));
        const now = open.at(-1)!.services.db;
        expect([write, letters(now) - before.letters]).toEqual([write, invited(now) - before.invited]);
        if (killed) await send(open[1]!);
        expect([write, letters(now) - before.letters, invited(now) - before.invited]).toEqual([write, 2, 2]);
      } finally {
        for (const one of open) await one.close().catch(() => undefined);
        rmSync(data, { recursive: true, force: true });
      }
    }
    expect(write).toBeGreaterThan(2);
  });
});
