import autocannon from 'autocannon';
import type { BenchHouse } from './BenchHouse';

/** What one way of asking the server came to. */
export interface Rate {
  readonly perSecond: number;
  readonly p50Ms: number;
  readonly p99Ms: number;
  readonly refused: number;
}

const CONNECTIONS = 64;
const SECONDS = 4;
const TURNS = 4;

/** A change as the desk sends it: one entry of an answer being typed. */
const entryOf = (seq: number, device: string) => ({
  ...{ device, seq, about: 'answer', target: 'incident-note/A', at: Date.now() },
  value: {
    text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: `Bay ${seq}` }] }] },
  },
});

function fire(url: string, body: (turn: number) => object, cookies: readonly string[]): Promise<Rate> {
  let turn = 0;
  return new Promise((resolve, reject) => {
    autocannon(
      {
        ...{ url, method: 'POST', connections: CONNECTIONS, duration: SECONDS },
        requests: [
          {
            setupRequest: (request) => {
              turn++;
              return {
                ...request,
                body: JSON.stringify(body(turn)),
                headers: { 'Content-Type': 'application/json', Cookie: cookies[turn % cookies.length]! },
              };
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
});

/**
 * Durable saves against the same server's bare echo of the same bytes, turn about in one run, so that whatever else the
 * machine does falls on both. The medians of the turns.
 */
export async function measureSaves(house: BenchHouse): Promise<{ save: Rate; echo: Rate }> {
  const cookies = house.openSittings(500);
  const device = () => crypto.randomUUID();
  const saves: Rate[] = [];
  const echoes: Rate[] = [];
  // A first, short turn of each warms the server up and is thrown away.
  for (let turn = -1; turn < TURNS; turn++) {
    const name = device();
    const body = (seq: number) => ({ entries: [entryOf(seq, name)] });
    const save = await fire(`${house.url}/api/sitting/journal`, body, cookies);
    const echo = await fire(`${house.url}/api/echo`, body, cookies);
    if (turn < 0) continue;
    saves.push(save);
    echoes.push(echo);
  }
  return { save: typical(saves), echo: typical(echoes) };
}
