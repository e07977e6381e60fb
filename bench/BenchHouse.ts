import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { createServer } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { invitedNow } from '../demo/people';
import { seedDemo } from '../demo/seed';
import { noArrangements } from '../core/rounds/api';
import { readConfig } from '../server/config';
import { candidates, candidateSessions, invitations, sittings } from '../server/db/schema';
import { openDatabase, type Db } from '../server/db/open';
import { newSecret, sha256 } from '../server/http/secrets';
import { TimeKeeper } from '../server/sittings/timeKeeper';
import { wire } from '../server/wire';

const ROOT = path.resolve(import.meta.dirname, '..');

async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as { port: number };
  server.close();
  await once(server, 'close');
  return port;
}

/** The real server in a process of its own, on a seeded folder of its own, for measuring. */
export class BenchHouse {
  readonly url: string;
  readonly folder: string;
  readonly link: string;
  private readonly process: ChildProcess;
  private readonly db: Db;

  private constructor(url: string, folder: string, link: string, child: ChildProcess) {
    [this.url, this.folder, this.link, this.process] = [url, folder, link, child];
    this.db = openDatabase(path.join(folder, 'clear-sitting.sqlite'));
  }

  static async open(): Promise<BenchHouse> {
    const folder = mkdtempSync(path.join(tmpdir(), 'clear-sitting-bench-'));
    const port = await freePort();
    const url = `http://127.0.0.1:${port}`;
    const settings = {
      ...{ PORT: String(port), CLEAR_SITTING_URL: url, CLEAR_SITTING_DATA: folder },
      ...{ CLEAR_SITTING_STANDIN_CAMERA: 'true', LOG_LEVEL: 'error' },
    };
    const { services, outbox, close } = wire(readConfig(settings), 'error');
    await seedDemo(services, outbox, { scripts: false });
    const letter = outbox.list().find((l) => l.to === invitedNow[0]!.email)!;
    const link = outbox.read(letter.id)!.link!;
    await close();
    const child = spawn(process.execPath, ['--import', 'tsx', 'server/main.ts'], {
      cwd: ROOT,
      env: { ...process.env, ...settings },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    while (!(await fetch(`${url}/api/health`).catch(() => null))?.ok)
      if (child.exitCode !== null) throw new Error('the server did not start');
    return new BenchHouse(url, folder, link, child);
  }

  /** Puts running sittings straight into the database; gives a cookie for each. */
  openSittings(count: number): string[] {
    const now = Date.now();
    const time = new TimeKeeper(this.db);
    const round = this.db.query.rounds.findFirst().sync()!.id;
    const one = (n: number) => {
      const person = {
        name: `Candidate ${n}`,
        email: `bench.${n}@example.org`,
        reference: `BENCH-${newSecret()}`,
      };
      const candidateId = Number(this.db.insert(candidates).values(person).run().lastInsertRowid);
      const invitation = {
        roundId: round,
        candidateId,
        linkHash: newSecret(),
        extraPercent: 0,
        arrangements: noArrangements,
        invitedAt: now,
      };
      const invitationId = Number(this.db.insert(invitations).values(invitation).run().lastInsertRowid);
      const form = { invitationId, attempt: 1, seed: newSecret(), script: newSecret() };
      const sitting = Number(this.db.insert(sittings).values(form).run().lastInsertRowid);
      time.record(sitting, { type: 'started', at: now });
      const token = newSecret();
      this.db
        .insert(candidateSessions)
        .values({ tokenHash: sha256(token), invitationId, createdAt: now })
        .run();
      return `clear_sitting_candidate=${token}`;
    };
    return this.db.transaction(() => Array.from({ length: count }, (_, n) => one(n)));
  }

  async close(): Promise<void> {
    this.db.$client.close();
    const ended = once(this.process, 'exit');
    this.process.kill('SIGTERM');
    await ended;
    rmSync(this.folder, { recursive: true, force: true });
  }
}
