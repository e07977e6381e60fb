/*
 * `npm run load -- --candidates N`: simulated candidates arrive, start within a minute of one another, save as often as the
 * server says (every 10 to 15 s), and hand in all in the last two minutes; each holds a line of events meanwhile, and one invigilator watches
 * them all. `--slow 3` gives the server a third of a core. Each writes on at an essay of 3,000 words. Server and generator share the machine; what each of them costs is
 * told apart. Writes bench/load/results.json.
 */
import sharp from 'sharp';
import { once } from 'node:events';
import { storeResponse } from '../../core/kinds/stored';
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { Agent, request } from 'node:http';
import { cpus, tmpdir } from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import type { ArrivalOpened, QueuePlace } from '../../core/arrival/api';
import { checkNames } from '../../core/arrival/checks';
import { canonicalJson } from '../../core/journal/canonicalJson';
import type { Entry } from '../../core/journal/entry';
import { HoldWriter } from '../../core/journal/holdWriter';
import { makePatch, WHOLE_AFTER } from '../../core/journal/patch';
import { seededRandom } from '../../core/random';
import { SAVE_MS } from '../../core/timing/saving';
import type { HandInReply, HoldReply, JournalKept, Prepared, SittingOpened } from '../../core/sittings/api';
import { technicianPaper } from '../../demo/technicianPaper';
import { processorTime } from '../../server/sandbox/processorTime';
import { sha256 } from '../../server/secrets';
import { checkSum } from '../../server/sittings/checkSum';
import { verifyReceipts } from '../../server/sittings/verifyReceipts';
import { BenchApp } from '../BenchApp';
import { measureSaves } from '../saves';
import { askAgainMs } from '../../web/api/openLink';
import { retryAfterMs } from '../../web/api/retryAfterMs';
import { readProfile } from './profile';
import { slowDown } from './slow';

const argument = (name: string, otherwise: number) => {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : Number(process.argv[at + 1]);
};
const CANDIDATES = argument('candidates', 5000);
const ARRIVE_MS = argument('arrive-seconds', 60) * 1000;
const START_MS = argument('start-seconds', 60) * 1000;
const WRITE_MS = argument('write-seconds', 60) * 1000;
const END_MS = argument('end-seconds', 120) * 1000;
/** The server gets this part of a core. */
const SLOW = argument('slow', 1);
const LOOPBACK_QUEUE = 30_000;
const WORDS = 3000;
const WORD = 'supply bay dipped night alarm count lots kept'.split(' ');

const { rules: RULES } = technicianPaper();
const CHECKS = checkNames;

const random = seededRandom('load');
const wait = (ms: number) => new Promise<void>((done) => setTimeout(done, ms));
const agent = new Agent({ keepAlive: true, maxSockets: Infinity });
const profileIn = process.argv.includes('--profile')
  ? mkdtempSync(path.join(tmpdir(), 'profile-'))
  : undefined;
const app = await BenchApp.open({ profileIn });
const { hostname, port } = new URL(app.url);

interface Answer {
  readonly status: number;
  readonly cookie: string | null;
  readonly body: string;
  readonly ms: number;
}

type Method = 'GET' | 'POST' | 'PUT';

/**
 * A connection that was closed in between is no loss: it is asked again, as the desk's sender would; and so is a server
 * that is busy, after the same wait as in `web/api/client.ts`.
 */
async function call(method: Method, route: string, cookie: string, body?: object): Promise<Answer> {
  let busyReplies = 0;
  for (let tries = 0; ; tries++)
    try {
      const answer = await ask(method, route, cookie, body);
      if (answer.status !== 503 || ++busyReplies > 7) return answer;
      busy++;
      await wait(retryAfterMs(busyReplies, random()));
    } catch (error) {
      if (tries >= 5) throw error;
      again++;
    }
}

function ask(method: Method, route: string, cookie: string, body?: object): Promise<Answer> {
  const from = performance.now();
  return new Promise((resolve, reject) => {
    const picture = Buffer.isBuffer(body);
    const type = picture ? 'image/jpeg' : 'application/json';
    const headers = { Cookie: cookie, 'Content-Type': type, 'Accept-Encoding': 'gzip' };
    const outgoing = request({ agent, hostname, port, method, path: `/api${route}`, headers }, (incoming) => {
      const chunks: Buffer[] = [];
      incoming.on('data', (chunk: Buffer) => chunks.push(chunk));
      incoming.on('end', () => {
        const text = incoming.headers['content-encoding'] ? '' : Buffer.concat(chunks).toString();
        const cookie = incoming.headers['set-cookie']?.[0]?.split(';')[0] ?? null;
        resolve({ status: incoming.statusCode!, body: text, cookie, ms: performance.now() - from });
      });
    });
    outgoing.on('error', reject);
    outgoing.end(picture ? body : body && JSON.stringify(body));
  });
}

/** A line of server-sent events, as every desk and every watch room holds one; gives how to end it. */
function listen(route: string, cookie: string): () => void {
  const outgoing = request({ agent, hostname, port, path: `/api${route}`, headers: { Cookie: cookie } });
  outgoing.on('response', (incoming) => {
    if (incoming.statusCode !== 200) refused++;
    incoming.on('data', (chunk: Buffer) => {
      streamed.messages++;
      streamed.bytes += chunk.length;
    });
    incoming.on('error', () => undefined);
  });
  outgoing.on('error', () => undefined);
  outgoing.end();
  return () => void outgoing.destroy();
}
const streamed = { messages: 0, bytes: 0 };

const [starts, saves, handIns]: number[][] = [[], [], []];
const steps: number[] = [];
/** Saves by the phase in which they were sent, so that it shows what slows them. */
const byPhase: Record<string, number[]> = {};
let longestPause = 0;
let [acknowledged, refused, again, busy, receiptsShown] = [0, 0, 0, 0, 0];

/** What a refused reply said, once for each that is new. */
const refusals = new Set<string>();

const well = (answer: Answer): Answer => {
  if (answer.status === 200) return answer;
  refused++;
  const said = `${answer.status} ${answer.body.slice(0, 300)}`;
  if (!refusals.has(said)) console.error('refused:', said);
  refusals.add(said);
  return answer;
};

/** An essay of 3,000 words that is written on: whole at first and every fifty entries, patches in between. */
class Essay {
  private readonly writer: HoldWriter;
  private text: string;
  private base: { readonly number: number; readonly text: string } | null = null;
  private patches = 0;
  heard: number;

  constructor({ hold, now }: SittingOpened) {
    this.writer = new HoldWriter(hold, sha256);
    this.heard = now;
    this.text = Array.from({ length: WORDS }, (_, n) => WORD[n % WORD.length]).join(' ');
  }

  write(): Entry {
    this.text += ` and ${WORD[Math.floor(random() * WORD.length)]}`;
    const paragraph = { type: 'paragraph', content: [{ type: 'text', text: this.text }] };
    const value = storeResponse('writing', { text: { type: 'doc', content: [paragraph] } });
    const text = canonicalJson(value);
    const whole = this.base === null || this.patches >= WHOLE_AFTER;
    const ref = { hold: this.writer.hold, number: this.base?.number ?? 0 };
    const body = whole ? { value } : { patch: makePatch(ref, { from: this.base!.text, to: text }, checkSum) };
    const entry = this.writer.append({ about: 'answer', target: 'incident-note/A', at: Date.now(), ...body });
    this.base = { number: entry.number, text };
    this.patches = whole ? 0 : this.patches + 1;
    return entry;
  }

  batch(entries: readonly Entry[]) {
    return { head: this.writer.head(this.heard), opening: 'page-of-load', entries };
  }
}

/** A picture as large as a camera's: the server decodes and re-encodes each. */
const picture = await sharp({
  create: {
    width: 640,
    height: 480,
    channels: 3,
    background: '#888',
    noise: { type: 'gaussian', mean: 128, sigma: 12 },
  },
})
  .jpeg({ quality: 60 })
  .toBuffer();

/** Where a candidate stands who is not let in yet. */
function queueIn({ status, body }: Answer): QueuePlace | null {
  const opened = status === 200 && body !== '' ? (JSON.parse(body) as ArrivalOpened) : null;
  return opened && 'queue' in opened ? opened.queue : null;
}
/** How long people waited to be let in, and how often they were asked to. */
const entered: number[] = [];
let queued = 0;

interface AtCover {
  readonly cookie: string;
  /** The sealed copies that are on the device now. */
  readonly sealed: readonly string[];
}

/**
 * The link opened, and every step taken up to the cover page, which fetches the sealed paper as soon as it is shown, as
 * `web/arrival/steps/Cover.tsx` does.
 */
async function arrive(link: string): Promise<AtCover> {
  const step = async (method: Method, route: string, body?: object, cookie = '') => {
    const answer = well(await call(method, `/${route}`, cookie, body));
    steps.push(answer.ms);
    return answer;
  };
  await wait(random() * ARRIVE_MS);
  const came = performance.now();
  let opened = await step('POST', 'arrival/open', { link });
  for (let queue = queueIn(opened); queue !== null; queue = queueIn(opened)) {
    queued++;
    await wait(askAgainMs(queue, random()));
    opened = await step('POST', 'arrival/open', { link });
  }
  entered.push(performance.now() - came);
  const cookie = opened.cookie!;
  await step('POST', 'arrival/details', { correction: null }, cookie);
  const results = CHECKS.map((name) => ({ name, outcome: 'good', facts: { simulated: true } }));
  await step('POST', 'arrival/checks', { results, goOn: true }, cookie);
  await step('PUT', 'arrival/picture/person', picture, cookie);
  await step(
    'POST',
    'arrival/rules',
    { version: RULES.version, accepted: RULES.statements.map((s) => s.key) },
    cookie,
  );
  const { body } = await step('POST', 'sitting/prepare', {}, cookie);
  const sealed = (JSON.parse(body) as Prepared).sealed.map((copy) => copy.hash);
  for (const hash of sealed) await step('GET', `sitting/sealed/${hash}`, undefined, cookie);
  return { cookie, sealed };
}

async function candidate(link: string, from: number): Promise<void> {
  const { cookie, sealed } = await arrive(link);
  const begins = from + ARRIVE_MS + random() * START_MS;
  const end = from + ARRIVE_MS + START_MS + WRITE_MS + END_MS;
  await wait(Math.max(0, begins - Date.now()));
  await sit({ cookie, sealed }, end);
}

async function sit({ cookie, sealed }: AtCover, end: number): Promise<void> {
  const asked = { store: 'store-of-load', opening: 'page-of-load', takeOver: true, sealed };
  const started = well(await call('POST', '/sitting/start', cookie, asked));
  starts!.push(started.ms);
  const reply = JSON.parse(started.body) as HoldReply;
  if (!reply.granted) throw new Error('a start without a hold');
  const essay = new Essay(reply.opened);
  let nextSaveMs = SAVE_MS;
  const send = async (route: string, entries: readonly Entry[], more = {}) => {
    const answer = well(await call('POST', route, cookie, { ...essay.batch(entries), ...more }));
    if (answer.status === 200) {
      acknowledged += entries.length;
      const kept = JSON.parse(answer.body) as JournalKept;
      [essay.heard, nextSaveMs] = [kept.now, kept.nextSaveMs];
      longestPause = Math.max(longestPause, nextSaveMs);
    }
    return answer;
  };
  await send('/sitting/journal', []);
  const stopListening = listen('/live/stream', cookie);
  const handInAt = end - random() * END_MS;
  for (;;) {
    // Who writes on saves when the device may wait no longer; signs of life come a little sooner.
    const pause = nextSaveMs * (0.9 + random() / 10);
    if (Date.now() + pause > handInAt) break;
    await wait(pause);
    const entries = Array.from({ length: 1 + Math.floor(random() * 3) }, () => essay.write());
    const sent = Date.now();
    const answer = await send('/sitting/journal', entries);
    saves!.push(answer.ms);
    (byPhase[phaseAt(sent)] ??= []).push(answer.ms);
  }
  await wait(Math.max(0, handInAt - Date.now()));
  const handedIn = await send('/sitting/hand-in', [essay.write()], {
    by: 'candidate',
    claimedAt: Date.now(),
  });
  handIns!.push(handedIn.ms);
  if ((JSON.parse(handedIn.body) as HandInReply).receipt) receiptsShown++;
  // One more round trip shows that nothing else can come.
  await send('/sitting/journal', []);
  stopListening();
}

/** What the kernel threw away: connections while too many waited to be taken up, and packets on the way through itself. */
function thrownAway() {
  const [names, values] = readFileSync('/proc/net/netstat', 'utf8').split('\n');
  const connections = Number(values!.split(' ')[names!.split(' ').indexOf('ListenOverflows')]);
  const packets = readFileSync('/proc/net/softnet_stat', 'utf8')
    .trim()
    .split('\n')
    .reduce((sum, line) => sum + Number.parseInt(line.split(' ')[1]!, 16), 0);
  return { connections, packets };
}

/**
 * Both ends of ten thousand connections are on this machine: what one sends lies in a queue of the kernel until the
 * other's core comes to it. Its usual length of 1,000 overflows, and TCP then waits for seconds; no network is like that.
 */
function lengthenLoopback(): number {
  const file = '/proc/sys/net/core/netdev_max_backlog';
  try {
    writeFileSync(file, String(LOOPBACK_QUEUE));
  } catch {
    // Without the right to change it the run goes on; the figure below tells.
  }
  return Number(readFileSync(file, 'utf8'));
}

const at = (values: number[], share: number) =>
  Math.round(
    values.sort((a, b) => a - b)[Math.min(values.length - 1, Math.floor(values.length * share))] ?? 0,
  );

const links = app.invite(CANDIDATES);
const slowed = SLOW === 1 ? null : slowDown(app.pid, 1 / SLOW);
const from = Date.now();
const phaseAt = (at: number) => {
  const passed = at - from - ARRIVE_MS;
  return passed < START_MS ? 'starting' : passed < START_MS + WRITE_MS ? 'writing' : 'handing in';
};
const takenBefore = processorTime().taken;
const loopbackQueue = lengthenLoopback();
const thrownBefore = thrownAway();
const heartbeat = new Worker(new URL('./heartbeat.mjs', import.meta.url));
const [serverBefore, ownBefore] = [app.serverSeconds(), process.cpuUsage()];
const { cookie: watcher, round } = app.staff('invigilator');
const stopWatching = listen(`/watch/${round}/stream`, watcher);
await Promise.all(links.map((link) => candidate(link, from)));
const seconds = (Date.now() - from) / 1000;
stopWatching();
heartbeat.postMessage('enough');
const [late] = (await once(heartbeat, 'message')) as [number[]];
await heartbeat.terminate();
const own = process.cpuUsage(ownBefore);
const taken = processorTime().taken - takenBefore;
const thrown = thrownAway();
const serverCpu = app.serverSeconds() - serverBefore;
const { n: kept } = app.db.$client.prepare('select count(*) as n from journal').get() as { n: number };
const receipts = verifyReceipts(app.db);
agent.destroy();
// The round was measured already: it is told even where this is not.
const rates = slowed
  ? null
  : await measureSaves(app).catch((error: unknown) => {
      console.error('the saves of a bare route could not be measured', error);
      return null;
    });
await app.close();
slowed?.end();

const results = {
  at: new Date().toISOString(),
  machine: { cores: cpus().length, processor: cpus()[0]!.model, node: process.version },
  candidates: CANDIDATES,
  slow: slowed && { times: SLOW, by: slowed.by },
  seconds: Math.round(seconds),
  saves: {
    count: saves!.length,
    perSecond: Math.round(saves!.length / seconds),
    p50Ms: at(saves!, 0.5),
    p99Ms: at(saves!, 0.99),
  },
  savesWhile: Object.fromEntries(
    Object.entries(byPhase).map(([phase, ms]) => [
      phase,
      { count: ms.length, p50Ms: at(ms, 0.5), p99Ms: at(ms, 0.99) },
    ]),
  ),
  longestPauseMs: longestPause,
  letIn: { p50Ms: at(entered, 0.5), p99Ms: at(entered, 0.99), askedToWait: queued },
  arrivalSteps: { count: steps.length, p50Ms: at(steps, 0.5), p99Ms: at(steps, 0.99) },
  starts: { count: starts!.length, p50Ms: at(starts!, 0.5), p99Ms: at(starts!, 0.99) },
  handIns: { count: handIns!.length, p50Ms: at(handIns!, 0.5), p99Ms: at(handIns!, 0.99) },
  lines: { held: CANDIDATES + 1, ...streamed },
  entries: { acknowledged, inDatabase: kept, lost: acknowledged - kept },
  refused,
  askedAgain: again,
  busyReplies: busy,
  kernel: {
    loopbackQueue,
    connectionsDropped: thrown.connections - thrownBefore.connections,
    packetsDropped: thrown.packets - thrownBefore.packets,
  },
  receiptsShown,
  receipts: receipts.checked,
  receiptsBroken: receipts.broken.length,
  processorSeconds: {
    of: Math.round(seconds * cpus().length),
    server: Math.round(serverCpu),
    generator: Math.round((own.user + own.system) / 1e6),
    takenByTheHost: Math.round(taken),
  },
  machineLate: {
    p99Ms: at(late, 0.99),
    longestMs: at(late, 1),
    over100Ms: late.filter((ms) => ms > 100).length,
    secondsInThem: Math.round(late.filter((ms) => ms > 100).reduce((sum, ms) => sum + ms, 0) / 100) / 10,
  },
  savesOfBare: rates && {
    ...rates,
    ofBare: Math.round((100 * rates.save.perSecond) / rates.bare.perSecond) / 100,
  },
};
writeFileSync(path.join(import.meta.dirname, 'results.json'), `${JSON.stringify(results, null, 2)}\n`);
console.log(JSON.stringify(results, null, 2));
if (profileIn) console.log(JSON.stringify(readProfile(profileIn), null, 1));
process.exit(results.entries.lost === 0 && results.receiptsBroken === 0 ? 0 : 1);
