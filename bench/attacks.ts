/*
 * `npm run attacks`: what hostile or huge requests cost everybody else. Beside each attack health is asked every 20 ms; told is
 * how late the server's event loop was at most, and how long health took. The goal is 50 ms of delay.
 */
import { setTimeout as wait } from 'node:timers/promises';
import { sha256 } from '../server/secrets';
import { BenchApp } from './BenchApp';

const app = await BenchApp.open();
const api = (path: string) => `${app.url}/api${path}`;
const coordinator = app.staff('coordinator');
const json = { 'Content-Type': 'application/json' };

interface Attack {
  readonly name: string;
  readonly run: () => Promise<unknown>;
}

const post = (path: string, body: BodyInit, headers: Record<string, string>) =>
  fetch(api(path), { method: 'POST', body, headers }).then(async (answer) => {
    await answer.arrayBuffer();
    return answer.status;
  });
const list = (text: string) =>
  post(`/rounds/${coordinator.round}/people/check`, text, {
    'Content-Type': 'application/octet-stream',
    Cookie: coordinator.cookie,
  });
const times = <T>(count: number, work: (n: number) => Promise<T>) =>
  Promise.all(Array.from({ length: count }, (_, n) => work(n)));

const honest = (count: number) =>
  `Name,Email\n${Array.from({ length: count }, (_, n) => `Person ${n},person.${n}@example.org\n`).join('')}`;
/** Answers of a rehearsal, nearly as long as they may be. */
const rehearsal = JSON.stringify({
  answers: {
    'who-on-wednesday/A': {
      version: 1,
      response: { chosen: Array.from({ length: 20_000 }, (_, n) => `k${n}`) },
    },
  },
});
const cookies = app.openSittings(2);

/** A PDF document that keeps whoever reads it busy. */
const hostile = Buffer.from(
  `%PDF-1.7\n${Array.from({ length: 900_000 }, (_, n) => `${n % 10} 0 obj\n`).join('')}`,
).subarray(0, 11 * 1024 * 1024);
const PART = 256 * 1024;
async function sendPage(cookie: string, bytes: Buffer): Promise<void> {
  const name = app.deviceNameOf(cookie);
  const hash = sha256(bytes);
  for (let from = 0; from < bytes.length; from += PART) {
    const answer = await fetch(api(`/sitting/${name}/pages/${hash}/${bytes.length}/${from}`), {
      method: 'PUT',
      body: new Uint8Array(bytes.subarray(from, from + PART)),
      headers: { 'Content-Type': 'application/octet-stream', Cookie: cookie },
    });
    await answer.arrayBuffer();
    if (!answer.ok) throw new Error(`a page was refused: ${answer.status}`);
  }
}

const attacks: readonly Attack[] = [
  { name: 'nothing', run: () => wait(1500) },
  {
    name: 'a list with 300,000 spaces',
    run: () => list(`Name,Email,Extra\na,a@example.org,1${' '.repeat(300_000)}x\n`),
  },
  { name: 'a list of 10,000 people', run: () => list(honest(10_000)) },
  {
    name: 'headings that grow when they are read',
    run: () => list(`Name,Email,${'\ufdfa'.repeat(1_000_000)}\na,b\n`),
  },
  {
    name: '24 rehearsals of 250 kB',
    run: () => times(24, () => post('/rehearsal/technician-november/score', rehearsal, json)),
  },
  {
    name: '100 sign-ins at once',
    run: () =>
      times(100, (n) =>
        post('/sign-in', JSON.stringify({ email: `s${n}@example.org`, password: 'x' }), json),
      ),
  },
  {
    name: '200 bodies of 480 kB to the sign-in',
    run: () => times(200, () => post('/sign-in', `{"email":"${'x'.repeat(480_000)}"}`, json).catch(() => 0)),
  },
  {
    name: '200 bodies to pages of phones',
    run: () => times(200, () => post('/phone/pages', '['.repeat(2000), json)),
  },
  {
    name: 'two hostile documents of a candidate',
    run: async () => {
      await sendPage(cookies[0]!, hostile);
      await sendPage(cookies[0]!, Buffer.concat([hostile.subarray(0, -1), Buffer.from('x')]));
    },
  },
];

const rows = [];
for (const { name, run } of attacks) {
  await (await fetch(api('/bench/delay'))).arrayBuffer();
  let over = false;
  const probes: number[] = [];
  const probing = (async () => {
    while (!over) {
      const from = performance.now();
      await (await fetch(api('/health'))).arrayBuffer();
      probes.push(performance.now() - from);
      await wait(20);
    }
  })();
  const from = performance.now();
  const before = app.serverSeconds();
  await run();
  over = true;
  await probing;
  const delay = (await (await fetch(api('/bench/delay'))).json()) as { p99: number; most: number };
  rows.push({
    attack: name,
    seconds: Math.round((performance.now() - from) / 100) / 10,
    serverProcessorMs: Math.round((app.serverSeconds() - before) * 1000),
    loopP99Ms: Math.round(delay.p99),
    loopMostMs: Math.round(delay.most),
    healthMostMs: Math.round(Math.max(...probes)),
  });
}
await app.close();
console.table(rows);
