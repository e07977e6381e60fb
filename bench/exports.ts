import { eq } from 'drizzle-orm';
import { rounds } from '../server/db/schema';
import { BenchApp } from './BenchApp';
import { growBig } from './bigData';
import { ask, at, signIn, writer } from './staff';

export interface ExportFigures {
  readonly candidates: number;
  readonly csvMs: number;
  readonly xlsxMs: number;
  readonly saves: { readonly before: number; readonly meanwhile: number };
}

const CANDIDATES = 5000;
const WRITERS = 300;
const SAVE_EVERY_MS = 2000;
const BEFORE_MS = 10_000;

/** The results of a round of 5,000 as files, while others write; how long saves take (p99) before and meanwhile. */
export async function measureExports(): Promise<ExportFigures> {
  const app = await BenchApp.open({ scripts: true });
  try {
    growBig(app.db.$client, { rounds: 2, sittingsEach: CANDIDATES, entriesEach: 10 });
    const { id } = app.db.select({ id: rounds.id }).from(rounds).where(eq(rounds.key, 'big-1')).get()!;
    const coordinator = signIn(app, 'coordinator');
    const writers = await Promise.all(app.openSittings(WRITERS).map((cookie) => writer(app, cookie)));
    const times = { before: [] as number[], meanwhile: [] as number[] };
    let phase: keyof typeof times | null = 'before';
    const writing = writers.map(async (save, n) => {
      await new Promise((go) => setTimeout(go, (n * SAVE_EVERY_MS) / WRITERS));
      while (phase !== null) {
        const during = phase;
        const took = await save();
        times[during].push(took);
        await new Promise((go) => setTimeout(go, Math.max(0, SAVE_EVERY_MS - took)));
      }
    });
    await new Promise((go) => setTimeout(go, BEFORE_MS));
    phase = 'meanwhile';
    const csvMs = Math.round(await ask(`${app.url}/api/rounds/${id}/results.csv`, coordinator));
    const xlsxMs = Math.round(await ask(`${app.url}/api/rounds/${id}/results.xlsx`, coordinator));
    phase = null;
    await Promise.all(writing);
    const saves = { before: at(times.before, 0.99), meanwhile: at(times.meanwhile, 0.99) };
    return { candidates: CANDIDATES, csvMs, xlsxMs, saves };
  } finally {
    await app.close();
  }
}
