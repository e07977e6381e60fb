import { eq } from 'drizzle-orm';
import { storeResponse } from '../core/kinds/stored';
import { HoldWriter } from '../core/journal/holdWriter';
import type { HoldReply } from '../core/sittings/api';
import { candidateSessions, invitations, rounds, staff, staffSessions } from '../server/db/schema';
import { newSecret, sha256 } from '../server/secrets';
import { BIG, growBig } from './bigData';
import { BenchApp } from './BenchApp';

export interface StaffFigures {
  readonly rows: { readonly rounds: number; readonly sittings: number; readonly journal: number };
  /** Server time of each page's addresses, with nothing else going on. */
  readonly pages: Readonly<Record<string, { readonly p50Ms: number; readonly mostMs: number }>>;
  /** While two people browse, export and print, and candidates write. */
  readonly busy: {
    readonly writing: number;
    readonly savesPerSecond: number;
    readonly saveP99Ms: number;
    readonly pageP99Ms: number;
    readonly loopP50Ms: number;
    readonly loopP99Ms: number;
    readonly pdfsPerMinute: number;
    readonly refused: number;
  };
  /** Of the first PDF of a result, with nothing else going on. */
  readonly pdfMs: number;
}

const WRITERS = 1000;
/** Somebody who types without a break sends about this often. */
const SAVE_EVERY_MS = 2000;
const BUSY_MS = 30_000;

export const at = (times: readonly number[], share: number): number => {
  const sorted = [...times].sort((a, b) => a - b);
  return Math.round((sorted[Math.min(Math.floor(sorted.length * share), sorted.length - 1)] ?? 0) * 10) / 10;
};

/** Asks once; how long the answer took, to its last byte. */
export async function ask(url: string, cookie: string, init: RequestInit = {}): Promise<number> {
  const from = performance.now();
  const answer = await fetch(url, { ...init, headers: { ...init.headers, Cookie: cookie } });
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`${url}: ${answer.status}`);
  return performance.now() - from;
}

export function signIn(app: BenchApp, role: string): string {
  const member = app.db
    .select()
    .from(staff)
    .all()
    .find((one) => (one.roles as string[]).includes(role))!;
  const token = newSecret();
  const now = Date.now();
  app.db
    .insert(staffSessions)
    .values({ tokenHash: sha256(token), staffId: member.id, expiresAt: now + 3_600_000, seenAt: now })
    .run();
  return `clear_sitting_staff=${token}`;
}

/** Sessions of candidates who have a result. */
function withResults(app: BenchApp, count: number): string[] {
  const own = app.db
    .select({ id: invitations.id })
    .from(invitations)
    .innerJoin(rounds, eq(rounds.id, invitations.roundId))
    .where(eq(rounds.key, 'big-1'))
    .limit(count)
    .all();
  return own.map(({ id }) => {
    const token = newSecret();
    app.db
      .insert(candidateSessions)
      .values({ tokenHash: sha256(token), invitationId: id, createdAt: Date.now() })
      .run();
    return `clear_sitting_candidate=${token}`;
  });
}

export async function writer(app: BenchApp, cookie: string): Promise<() => Promise<number>> {
  const url = `${app.url}/api/sitting`;
  const send = (route: string, body: object) =>
    fetch(`${url}${route}`, {
      method: 'POST',
      body: JSON.stringify(body),
      headers: { 'Content-Type': 'application/json', Cookie: cookie },
    });
  const hold = { store: 'store-of-bench', opening: 'page-of-bench', takeOver: true };
  const reply = (await (await send('/hold', hold)).json()) as HoldReply;
  if (!reply.granted) throw new Error('no hold');
  const own = new HoldWriter(reply.opened.hold, sha256);
  return async () => {
    const text = `Bay ${own.number}`;
    const value = storeResponse('writing', {
      text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] },
    });
    const entry = own.append({ about: 'answer', target: 'incident-note/A', at: Date.now(), value });
    const from = performance.now();
    const answer = await send('/journal', {
      head: own.head(reply.opened.now),
      opening: 'page-of-bench',
      entries: [entry],
    });
    await answer.arrayBuffer();
    if (!answer.ok) throw new Error(`a save: ${answer.status}`);
    return performance.now() - from;
  };
}

type PagesOf = Readonly<Record<string, readonly [cookie: string, path: string]>>;

/** The addresses behind every page of the staff. */
function pagesOf(app: BenchApp): PagesOf {
  const [coordinator, assessor, lead, invigilator] = ['coordinator', 'assessor', 'lead', 'invigilator'].map(
    (role) => signIn(app, role),
  ) as [string, string, string, string];
  const id = (key: string) =>
    app.db.select({ id: rounds.id }).from(rounds).where(eq(rounds.key, key)).get()!.id;
  const [open, empty] = [id('big-0'), id('technician-january')];
  return {
    rounds: [coordinator, '/rounds'],
    'an empty round': [coordinator, `/rounds/${empty}`],
    'a round': [coordinator, `/rounds/${open}`],
    'its candidates': [coordinator, `/rounds/${open}/candidates`],
    'its candidates, the last of them, by hand-in': [
      coordinator,
      `/rounds/${open}/candidates?sort=handedInAt&descending=true&from=80`,
    ],
    'candidates searched': [coordinator, `/people?search=candidate%2012`],
    'the experience': [coordinator, `/rounds/${open}/experience`],
    papers: [coordinator, '/papers'],
    'a paper': [coordinator, '/papers/2'],
    'the outbox': [coordinator, '/letters'],
    'the outbox searched': [coordinator, '/letters?search=big.49'],
    'failed jobs': [coordinator, '/jobs/failed'],
    'watch, rounds': [invigilator, '/watch'],
    'a watch room': [invigilator, `/watch/${open}`],
    'marking, piles': [assessor, '/marking/piles'],
    'the marking table': [assessor, `/marking/piles/${open}/incident-note/A`],
    'sign-off': [lead, '/marking/rounds'],
    'answers, parts': [lead, `/rounds/${open}/answers`],
    'answers of a part': [lead, `/rounds/${open}/answers/tray-14/A`],
  };
}

async function browse(app: BenchApp, pages: PagesOf, until: number, times: number[]): Promise<void> {
  const list = Object.values(pages);
  for (let n = 0; performance.now() < until; n++) {
    const [cookie, path] = list[n % list.length]!;
    times.push(await ask(`${app.url}/api${path}`, cookie));
    if (n % list.length === 0) {
      const [coordinator, candidates] = pages['its candidates']!;
      for (const format of ['csv', 'xlsx']) await ask(`${app.url}/api${candidates}.${format}`, coordinator);
    }
  }
}

export async function measureStaff(): Promise<StaffFigures> {
  const app = await BenchApp.open({ scripts: true });
  try {
    growBig(app.db.$client, BIG);
    const count = (table: string) =>
      app.db.$client.prepare(`select count(*) from ${table}`).pluck().get() as number;
    const rows = { rounds: count('rounds'), sittings: count('sittings'), journal: count('journal') };
    const pages = pagesOf(app);
    const quiet: Record<string, { p50Ms: number; mostMs: number }> = {};
    for (const [name, [cookie, path]] of Object.entries(pages)) {
      const times: number[] = [];
      // The first one prepares statements and reads papers; pages are asked for many times a day.
      for (let n = 0; n <= 10; n++) times.push(await ask(`${app.url}/api${path}`, cookie));
      quiet[name] = { p50Ms: at(times.slice(1), 0.5), mostMs: at(times.slice(1), 1) };
    }
    const results = withResults(app, 100);
    await ask(`${app.url}/api/result.pdf`, results[0]!);
    const pdfMs = Math.round(await ask(`${app.url}/api/result.pdf`, results[1]!));
    const writers = await Promise.all(app.openSittings(WRITERS).map((cookie) => writer(app, cookie)));
    const until = performance.now() + BUSY_MS;
    const [saves, asked]: [number[], number[]] = [[], []];
    let [printed, refused] = [0, 0];
    const write = async (save: () => Promise<number>, n: number) => {
      await new Promise((go) => setTimeout(go, (n * SAVE_EVERY_MS) / WRITERS));
      while (performance.now() < until) {
        const took = await save().catch(() => {
          refused += 1;
          return null;
        });
        if (took !== null) saves.push(took);
        await new Promise((go) => setTimeout(go, SAVE_EVERY_MS - Math.min(SAVE_EVERY_MS, took ?? 0)));
      }
    };
    const print = async () => {
      for (const cookie of results.slice(2)) {
        if (performance.now() > until) return;
        await ask(`${app.url}/api/result.pdf`, cookie);
        printed += 1;
      }
    };
    await fetch(`${app.url}/api/bench/delay`);
    await Promise.all([
      ...writers.map(write),
      browse(app, pages, until, asked),
      browse(app, pages, until, asked),
      print(),
    ]);
    const delay = (await (await fetch(`${app.url}/api/bench/delay`)).json()) as {
      p50: number;
      p99: number;
    };
    return {
      rows,
      pages: quiet,
      pdfMs,
      busy: {
        writing: WRITERS,
        savesPerSecond: Math.round((saves.length * 1000) / BUSY_MS),
        refused,
        saveP99Ms: at(saves, 0.99),
        pageP99Ms: at(asked, 0.99),
        loopP50Ms: Math.round(delay.p50 * 10) / 10,
        loopP99Ms: Math.round(delay.p99 * 10) / 10,
        pdfsPerMinute: Math.round((printed * 60_000) / BUSY_MS),
      },
    };
  } finally {
    await app.close();
  }
}
