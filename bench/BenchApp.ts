import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { copyFileSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { eq } from 'drizzle-orm';
import { noteArrival } from '../server/candidates/queries';
import { noArrangements, type Role } from '../core/rounds/api';
import {
  candidateSessions,
  invitations,
  links,
  people,
  rounds,
  sittings,
  staff,
  staffSessions,
} from '../server/db/schema';
import { openDatabase, type Db } from '../server/db/open';
import { fixForm } from '../server/forms/forms';
import { newSecret, sha256 } from '../server/secrets';
import { bundleServer } from '../scripts/bundleServer';
import { TimeKeeper } from '../server/sittings/timeKeeper';
import { freePort } from '../server/testing/freePort';

const ROOT = path.resolve(import.meta.dirname, '..');

/** What `npm start` tells Node.js about memory: what is measured runs as what is shipped. */
const START_FLAGS = (
  JSON.parse(readFileSync(path.join(ROOT, 'package.json'), 'utf8')) as { scripts: { start: string } }
).scripts.start
  .split(' ')
  .filter((word) => word.startsWith('--max-'));

/** A file system of its own, so small that it can be filled; needs the right to mount. */
function mountSmall(folder: string, megabytes: number): boolean {
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', `size=${megabytes}m`, 'tmpfs', folder], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
}

interface Options {
  readonly megabytes?: number;
  /** A folder for a processor profile of the server, written when it ends. */
  readonly profileIn?: string;
  /** With the demo's simulated scripts. */
  readonly scripts?: boolean;
}

/** The real server in a process of its own, on a seeded folder of its own, for measuring and for breaking. */
export class BenchApp {
  readonly url: string;
  readonly folder: string;
  readonly link: string;
  /** To the entrance paper, with its charts, films and documents. */
  readonly mediaLink: string;
  /** To the paper with a question of every kind. */
  readonly kindsLink: string;
  db: Db;
  /** Whether the folder is a small file system of its own. */
  readonly small: boolean;
  private readonly settings: Record<string, string>;
  private readonly flags: string[] = [...START_FLAGS];
  private process: ChildProcess | null = null;

  private constructor(
    url: string,
    folder: string,
    links: readonly [string, string, string],
    settings: Record<string, string>,
    small: boolean,
  ) {
    [this.url, this.folder, this.settings, this.small] = [url, folder, settings, small];
    [this.link, this.mediaLink, this.kindsLink] = links;
    this.db = openDatabase(this.file);
  }

  static async open({ megabytes, profileIn, scripts = false }: Options = {}): Promise<BenchApp> {
    await bundleServer(['bench/server.ts', 'bench/seed.ts']);
    const folder = mkdtempSync(path.join(tmpdir(), 'clear-sitting-bench-'));
    const small = megabytes !== undefined && mountSmall(folder, megabytes);
    const port = await freePort();
    const url = `http://127.0.0.1:${port}`;
    const settings = {
      PORT: String(port),
      CLEAR_SITTING_URL: url,
      CLEAR_SITTING_DATA: folder,
      CLEAR_SITTING_STANDIN_CAMERA: 'true',
      LOG_LEVEL: 'fatal',
    };
    // In a process of its own: what measures must not carry what the demo's data needed.
    const seeded = execFileSync(
      process.execPath,
      ['dist/bench/seed.mjs', ...(scripts ? ['--scripts'] : [])],
      {
        cwd: ROOT,
        env: { ...process.env, ...settings },
        stdio: ['ignore', 'pipe', 'inherit'],
      },
    );
    const all = JSON.parse(seeded.toString()) as [string, string, string];
    const app = new BenchApp(url, folder, all, settings, small);
    if (profileIn) app.flags.push('--cpu-prof', `--cpu-prof-dir=${profileIn}`);
    await app.start();
    return app;
  }

  get pid(): number {
    return this.process!.pid!;
  }

  async start(): Promise<void> {
    const child = spawn(process.execPath, [...this.flags, 'dist/bench/server.mjs'], {
      cwd: ROOT,
      env: { ...process.env, ...this.settings },
      stdio: ['ignore', 'ignore', 'inherit'],
    });
    this.process = child;
    // Where whoever measures ends by an error, the server does not stay.
    process.once('exit', () => child.kill('SIGKILL'));
    for (;;) {
      const answer = await fetch(`${this.url}/api/health`).catch(() => null);
      if (answer?.ok) return;
      if (child.exitCode !== null) throw new Error('the server did not start');
      await setTimeout(50);
    }
  }

  /** As the power would: no goodbye. */
  async killHard(): Promise<void> {
    const ended = once(this.process!, 'exit');
    this.process!.kill('SIGKILL');
    await ended;
  }

  private get file(): string {
    return path.join(this.folder, 'clear-sitting.sqlite');
  }

  /** Copies the database as it is now, beside the running server. */
  async backUp(): Promise<void> {
    await this.db.$client.backup(this.backupFile);
  }

  private readonly backupFile = path.join(mkdtempSync(path.join(tmpdir(), 'clear-sitting-backup-')), 'copy');

  /** Puts the last copy in the place of the database; the server must not run. */
  restore(): void {
    this.db.$client.close();
    for (const suffix of ['-wal', '-shm']) rmSync(`${this.file}${suffix}`, { force: true });
    copyFileSync(this.backupFile, this.file);
    this.db = openDatabase(this.file);
  }

  /** Processor seconds of the server so far, from /proc (clock ticks of a hundredth). */
  serverSeconds(): number {
    const fields = readFileSync(`/proc/${this.pid}/stat`, 'utf8').split(') ')[1]!.split(' ');
    return (Number(fields[11]) + Number(fields[12])) / 100;
  }

  /** Invites candidates to the November round; gives the secret of each link. */
  invite(count: number): string[] {
    return this.writing(() =>
      Array.from({ length: count }, (_, n) => {
        const link = newSecret();
        this.addInvitation(n, link);
        return link;
      }),
    );
  }

  /** Asks for the right to write at the beginning: a transaction that has read already cannot wait for it beside a busy server. */
  private writing<T>(work: () => T): T {
    return this.db.transaction(work, { behavior: 'immediate' });
  }

  private addInvitation(n: number, link: string): number {
    const round = this.db.select().from(rounds).where(eq(rounds.key, 'technician-november')).get()!.id;
    const person = {
      name: `Candidate ${n}`,
      email: `b.${n}@example.org`,
      reference: `BENCH-${newSecret()}`,
    };
    const personId = Number(this.db.insert(people).values(person).run().lastInsertRowid);
    const invitation = {
      roundId: round,
      personId,
      extraPercent: 0,
      arrangements: noArrangements,
      invitedAt: Date.now(),
    };
    const id = Number(this.db.insert(invitations).values(invitation).run().lastInsertRowid);
    this.db
      .insert(links)
      .values({ invitationId: id, hash: sha256(link), madeAt: 0 })
      .run();
    return id;
  }

  /** Somebody of the staff with a role, and the round that all arrived for; gives a cookie. */
  staff(role: Role): { readonly cookie: string; readonly round: number } {
    const round = this.db.select().from(rounds).where(eq(rounds.key, 'technician-november')).get()!.id;
    const member = this.db
      .select()
      .from(staff)
      .all()
      .find((s) => s.roles.includes(role))!;
    const token = newSecret();
    const expiresAt = Date.now() + 3_600_000;
    this.db
      .insert(staffSessions)
      .values({ tokenHash: sha256(token), staffId: member.id, expiresAt, seenAt: Date.now() })
      .run();
    return { cookie: `clear_sitting_staff=${token}`, round };
  }

  /** Puts running sittings straight into the database, begun some minutes ago; gives a cookie for each. */
  openSittings(count: number, minutesAgo = 0): string[] {
    const time = new TimeKeeper(this.db);
    const now = Date.now() - minutesAgo * 60_000;
    const { paperVersionId, settings } = this.db
      .select()
      .from(rounds)
      .where(eq(rounds.key, 'technician-november'))
      .get()!;
    const one = (n: number) => {
      const invitationId = this.addInvitation(n, newSecret());
      const steps = { detailsAt: now, checksAt: now, pictureAt: now, rulesAt: now, rulesVersion: 'bench' };
      noteArrival(this.db, invitationId, 1, steps);
      const token = newSecret();
      const session = { tokenHash: sha256(token), invitationId, createdAt: now };
      this.db.insert(candidateSessions).values(session).run();
      const terms = { seed: newSecret(), locale: settings.locale, transcripts: false, aids: [] };
      const formId = fixForm(this.db, paperVersionId, terms);
      const values = { invitationId, attempt: 1, formId, script: newSecret(), deviceName: newSecret() };
      const sitting = Number(this.db.insert(sittings).values(values).run().lastInsertRowid);
      time.record(sitting, { type: 'started', at: now });
      return `clear_sitting_candidate=${token}`;
    };
    return this.writing(() => Array.from({ length: count }, (_, n) => one(n)));
  }

  /** The name by which its device knows the sitting of a session. */
  deviceNameOf(cookie: string): string {
    const tokenHash = sha256(cookie.split('=')[1]!);
    return this.db
      .select({ name: sittings.deviceName })
      .from(candidateSessions)
      .innerJoin(sittings, eq(sittings.invitationId, candidateSessions.invitationId))
      .where(eq(candidateSessions.tokenHash, tokenHash))
      .get()!.name;
  }

  async close(): Promise<void> {
    this.db.$client.close();
    const ended = once(this.process!, 'exit');
    this.process!.kill('SIGTERM');
    await ended;
    // Lazily: a helper of a server that was killed may hold a file for a moment longer than the server.
    if (this.small) execFileSync('umount', ['--lazy', this.folder]);
    rmSync(this.folder, { recursive: true, force: true });
  }
}
