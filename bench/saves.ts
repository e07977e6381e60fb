import autocannon from 'autocannon';
import { storeResponse } from '../core/kinds/stored';
import { HoldWriter } from '../core/journal/holdWriter';
import type { HoldReply } from '../core/sittings/api';
import { sha256 } from '../server/secrets';
import type { BenchApp } from './BenchApp';

/** What one way of asking the server came to. */
export interface Rate {
  readonly perSecond: number;
  readonly p50Ms: number;
  readonly p99Ms: number;
  readonly refused: number;
  /** Processor time of the server for each request, in microseconds. */
  readonly processorUs: number;
}

const CONNECTIONS = 64;
const SECONDS = 4;
const TURNS = 4;
const DESKS = 500;

/** A desk that saves one change after the other, as fast as it is asked to. */
class SavingDesk {
  readonly cookie: string;
  private readonly writer: HoldWriter;
  private readonly heard: number;

  private constructor(cookie: string, writer: HoldWriter, heard: number) {
    [this.cookie, this.writer, this.heard] = [cookie, writer, heard];
  }

  static async open(url: string, cookie: string): Promise<SavingDesk> {
    const headers = { 'Content-Type': 'application/json', Cookie: cookie };
    const body = JSON.stringify({ store: 'store-of-bench', opening: 'page-of-bench', takeOver: true });
    const answer = await fetch(`${url}/api/sitting/hold`, { method: 'POST', headers, body });
    const reply = (await answer.json()) as HoldReply;
    if (!reply.granted) throw new Error('no hold');
    return new SavingDesk(cookie, new HoldWriter(reply.opened.hold, sha256), reply.opened.now);
  }

  /** One entry of an answer being typed, with its head. */
  next(): object {
    const text = `Bay ${this.writer.number}`;
    const paragraph = { type: 'paragraph', content: [{ type: 'text', text }] };
    const value = storeResponse('writing', { text: { type: 'doc', content: [paragraph] } });
    const entry = this.writer.append({
      about: 'answer',
      target: 'incident-note/A',
      at: Date.now(),
      value,
    });
    return { head: this.writer.head(this.heard), opening: 'page-of-bench', entries: [entry] };
  }
}

function fire(app: BenchApp, route: string, desks: readonly SavingDesk[]): Promise<Rate> {
  let turn = 0;
  const before = app.serverSeconds();
  return new Promise((resolve, reject) => {
    autocannon(
      {
        url: `${app.url}/api${route}`,
        method: 'POST',
        connections: CONNECTIONS,
        duration: SECONDS,
        requests: [
          {
            setupRequest: (request) => {
              const desk = desks[turn++ % desks.length]!;
              const headers = { 'Content-Type': 'application/json', Cookie: desk.cookie };
              return { ...request, body: JSON.stringify(desk.next()), headers };
            },
          },
        ],
      },
      (error: Error | null, result) => {
        if (error) return reject(error);
        const { requests, latency } = result;
        resolve({
          perSecond: requests.average,
          p50Ms: latency.p50,
          p99Ms: latency.p99,
          refused: result.non2xx + result.errors,
          processorUs: Math.round(((app.serverSeconds() - before) * 1e6) / Math.max(1, requests.total)),
        });
      },
    );
  });
}

const middle = (values: readonly number[]) =>
  [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
const typical = (rates: readonly Rate[]): Rate => ({
  perSecond: middle(rates.map((r) => r.perSecond)),
  p50Ms: middle(rates.map((r) => r.p50Ms)),
  p99Ms: middle(rates.map((r) => r.p99Ms)),
  refused: rates.reduce((sum, r) => sum + r.refused, 0),
  processorUs: middle(rates.map((r) => r.processorUs)),
});

/**
 * Durable saves against the same server's bare route with the same bytes, turn about in one run, so that whatever else
 * the machine does falls on both. The medians of the turns.
 */
export async function measureSaves(app: BenchApp): Promise<{ save: Rate; bare: Rate }> {
  const open = async () => {
    const desks: SavingDesk[] = [];
    for (const cookie of app.openSittings(DESKS)) desks.push(await SavingDesk.open(app.url, cookie));
    return desks;
  };
  // What goes to the bare route is not kept: those desks would have gaps in what they wrote.
  const [desks, others] = [await open(), await open()];
  const saves: Rate[] = [];
  const bares: Rate[] = [];
  // A first, short turn of each warms the server up and is thrown away.
  for (let turn = -1; turn < TURNS; turn++) {
    const save = await fire(app, '/sitting/journal', desks);
    const bare = await fire(app, '/bench/bare', others);
    if (turn < 0) continue;
    saves.push(save);
    bares.push(bare);
  }
  return { save: typical(saves), bare: typical(bares) };
}
