import { execFileSync, spawn, type ChildProcess } from 'node:child_process';
import { createHash } from 'node:crypto';
import { once } from 'node:events';
import { cpSync, mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { setTimeout } from 'node:timers/promises';
import { test as base, type Page } from '@playwright/test';
import Sqlite from 'better-sqlite3';
import { freePort } from '../server/testing/freePort';
import { Candidate } from './people/Candidate';
import { Staff, type StaffRole } from './people/Staff';
import { ROOT, TEMPLATE } from './paths';

/** The real server on a database of its own, whose clock a story can move. */
export class TestApp {
  readonly url: string;
  private readonly port: number;
  private readonly folder = mkdtempSync(path.join(tmpdir(), 'clear-sitting-'));
  private process: ChildProcess | null = null;
  /** What the server has written for whoever runs it. */
  log = '';

  /** On a copy of some data, or on an empty folder. */
  constructor(port: number, data: string | null = TEMPLATE) {
    this.port = port;
    this.url = `http://127.0.0.1:${port}`;
    if (data !== null) cpSync(data, this.folder, { recursive: true });
  }

  async start(): Promise<void> {
    const env = {
      ...process.env,
      PORT: String(this.port),
      CLEAR_SITTING_URL: this.url,
      CLEAR_SITTING_DATA: this.folder,
      CLEAR_SITTING_STANDIN_CAMERA: 'true',
      CLEAR_SITTING_TEST_CLOCK: 'true',
      CLEAR_SITTING_IDLE_MINUTES: '720',
      CLEAR_SITTING_BUNDLED: 'true',
      // Most stories run no program: an engine that nobody needs would take as much of the machine as the browser.
      CLEAR_SITTING_WARM_UP: 'false',
      // Stories wait for “saved” again and again.
      CLEAR_SITTING_SAVE_SECONDS: '1',
      LOG_LEVEL: 'error',
    };
    this.process = spawn(process.execPath, ['dist/server/main.mjs'], {
      cwd: ROOT,
      env,
      stdio: ['ignore', 'pipe', 'inherit'],
    });
    this.process.stdout!.on('data', (text: Buffer) => (this.log += text.toString()));
    for (;;) {
      const answer = await fetch(`${this.url}/api/health`).catch(() => null);
      if (answer?.ok) return;
      await setTimeout(50);
      if (this.process.exitCode !== null) throw new Error('the server did not start');
    }
  }

  /** `npm run add-staff`: gives the password that it tells. */
  addStaff(name: string, email: string, roles: string): string {
    const told = execFileSync(
      'npm',
      ['run', '--silent', 'add-staff', '--', '--name', name, '--email', email, '--roles', roles],
      { cwd: ROOT, env: { ...process.env, CLEAR_SITTING_DATA: this.folder }, encoding: 'utf8' },
    );
    return told.split('\n')[2]!.trim();
  }

  /** As the power would: no goodbye. */
  async killHard(): Promise<void> {
    const ended = once(this.process!, 'exit');
    this.process!.kill('SIGKILL');
    await ended;
  }

  async close(): Promise<void> {
    if (this.process && this.process.exitCode === null && this.process.signalCode === null)
      await this.killHard();
    rmSync(this.folder, { recursive: true, force: true });
  }

  private async post(route: string, body: object): Promise<void> {
    const headers = { 'Content-Type': 'application/json' };
    const answer = await fetch(`${this.url}/api${route}`, {
      method: 'POST',
      headers,
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(`${route}: ${await answer.text()}`);
  }

  /** Lets time pass for the server, and its jobs do what falls due. */
  advance(minutes: number): Promise<void> {
    return this.post('/test/clock', { ms: Math.round(minutes * 60_000) });
  }

  /** Does all jobs that are due now, as scoring what was handed in. */
  doJobs(): Promise<void> {
    return this.post('/test/jobs', {});
  }

  /** Reads the database beside the running server. */
  rows<T>(query: string, ...values: unknown[]): T[] {
    const db = new Sqlite(path.join(this.folder, 'clear-sitting.sqlite'), { readonly: true });
    try {
      return db.prepare(query).all(...values) as T[];
    } finally {
      db.close();
    }
  }

  /** A file as the server has kept it, by its hash. */
  keptFile(hash: string): Buffer {
    return readFileSync(path.join(this.folder, 'files', hash.slice(0, 2), hash));
  }

  /** Changes the data beside the server. */
  change(statement: string, ...values: unknown[]): void {
    const db = new Sqlite(path.join(this.folder, 'clear-sitting.sqlite'));
    try {
      db.prepare(statement).run(...values);
    } finally {
      db.close();
    }
  }

  /** A personal path of the kind that is in the letter to an address: of the first invitation, or that to a round. */
  linkOf(email: string, round: string | null = null): string {
    const [first] = this.rows<{ invitation: number }>(
      `select i.id as invitation from invitations i
       join people p on p.id = i.person_id join rounds r on r.id = i.round_id
       where p.email = ? and (? is null or r.key = ?) order by i.id`,
      email,
      round,
      round,
    );
    const secret = `link-of-invitation-${first!.invitation}`;
    this.change(
      'insert or ignore into links (invitation_id, hash, made_at) values (?, ?, 0)',
      first!.invitation,
      createHash('sha256').update(secret).digest('hex'),
    );
    return `/i/${secret}`;
  }
}

interface Fixtures {
  readonly app: TestApp;
  readonly candidate: (page: Page, email?: string) => Candidate;
  readonly staff: (page: Page, role: StaffRole) => Promise<Staff>;
}

export const ILSE = 'ilse.brandvold@example.org';
export const SIGNE = 'signe.tolland@example.org';
export const CORIN = 'corin.halvard@example.org';
export const TOVE = 'tove.abernathy.ruiz@example.org';
export const AMADOU = 'amadou.ferrante@example.org';
export const LUDO = 'ludo.marchetti@example.org';
export const RUNA = 'runa.aldercott@example.org';
export const PAVEL = 'pavel.istrup@example.org';
export const MIRELA = 'mirela.quist@example.org';
export const BETTINA = 'bettina.osei.clarke@example.org';
export const PERPETUA = 'perpetua.zanardi@example.org';
export const MATTIS = 'mattis.okafor.lind@example.org';

export const test = base.extend<Fixtures>({
  app: async ({}, use) => {
    const app = new TestApp(await freePort());
    await app.start();
    await use(app);
    await app.close();
  },
  baseURL: async ({ app }, use) => use(app.url),
  candidate: async ({ app }, use) =>
    use((page, email = ILSE) => new Candidate(page, app.url + app.linkOf(email))),
  staff: async ({ app }, use) => use((page, role) => Staff.signIn(page, app.url, role)),
});

export { expect } from '@playwright/test';
