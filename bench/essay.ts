import 'fake-indexeddb/auto';
import { storeResponse } from '../core/kinds/stored';
import { emptyDesk } from '../core/journal/desk';
import { seededRandom } from '../core/random';
import type { HoldReply, JournalKept } from '../core/sittings/api';
import { sittingQueries } from '../server/sittings/queries';
import { valueOf } from '../server/sittings/values';
import { DeviceJournal } from '../web/desk/journal/deviceJournal';
import { keepSitting } from '../web/desk/journal/deviceStore';
import type { BenchApp } from './BenchApp';

export interface EssayFigures {
  /** One hour of steady typing of a 600-word essay with corrections. */
  readonly entries: number;
  readonly databaseMb: number;
  readonly foldMs: number;
  /** What half an hour of it, written without a connection, takes over a line of 1 Mbit/s. */
  readonly backlogKb: number;
  readonly backlogSeconds: number;
}

const WORDS = 600;
const HOUR_KEYS = 9000;
const TARGET = 'incident-note/A';
const MBIT = 1_000_000;
/** There and back, beside what the bytes take. */
const TRIP_MS = 80;

/** A typist: mostly adds at the end, now and then goes back, corrects, and takes away. */
function* typing(random: () => number): Generator<string> {
  let text = '';
  const most = WORDS * 6;
  for (let key = 0; key < HOUR_KEYS; key++) {
    const at = random() < 0.1 ? Math.floor(random() * text.length) : text.length;
    const takes = text.length >= most || random() < 0.2;
    if (takes) text = text.slice(0, Math.max(0, at - 1)) + text.slice(at);
    else text = text.slice(0, at) + 'etaoin shrdlu '[Math.floor(random() * 14)]! + text.slice(at);
    yield text;
  }
}

const essay = (text: string) =>
  storeResponse('writing', {
    text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] },
  });

async function openJournal(app: BenchApp, name: string) {
  const [cookie] = app.openSittings(1, 55);
  const headers = { 'Content-Type': 'application/json', Cookie: cookie! };
  const post = async <T>(path: string, body: object): Promise<T> => {
    const answer = await fetch(`${app.url}/api${path}`, {
      method: 'POST',
      headers,
      body: JSON.stringify(body),
    });
    if (!answer.ok) throw new Error(`${path}: ${await answer.text()}`);
    return (await answer.json()) as T;
  };
  const asked = { store: `store-of-${name}`, opening: `page-of-${name}`, takeOver: true };
  const reply = await post<HoldReply>('/sitting/hold', asked);
  if (!reply.granted) throw new Error('no hold');
  const { sitting, sealed, media, keys, hold, plays, now } = reply.opened;
  const stored = { link: name, sitting, sealed, media, keys, hold, plays, base: emptyDesk };
  await keepSitting(stored, now);
  const journal = await DeviceJournal.open(stored, () => Date.now());
  const send = async (): Promise<number> => {
    const body = JSON.stringify({ ...(await journal.batch()), opening: asked.opening });
    const kept = await post<JournalKept>('/sitting/journal', JSON.parse(body) as object);
    journal.acknowledge(kept.held, kept.now);
    return body.length;
  };
  return { journal, send, script: sitting };
}

const databaseBytes = ({ db }: BenchApp): number => {
  const { $client } = db;
  const used = (name: string) => $client.pragma(name, { simple: true }) as number;
  return (used('page_count') - used('freelist_count')) * used('page_size');
};

/** The size of an hour's writing, its fold, and how fast half an hour's backlog is delivered. */
export async function measureEssay(app: BenchApp): Promise<EssayFigures> {
  const online = await openJournal(app, 'essay-online');
  const before = databaseBytes(app);
  const random = seededRandom('essay');
  let keys = 0;
  for (const text of typing(random)) {
    online.journal.note({ about: 'answer', target: TARGET, value: essay(text) });
    // Two and a half keys a second, and a batch a second.
    if (++keys % 5 === 2 || keys % 5 === 0) await online.send();
  }
  await online.send();
  const find = sittingQueries(app.db);
  const { id } = app.db.$client
    .prepare('select id from sittings where device_name = ?')
    .get(online.script) as {
    id: number;
  };
  const last = find.entriesOf({ sitting: id, hold: 1 }).at(-1)!;
  const from = performance.now();
  for (let n = 0; n < 20; n++) valueOf(find, id, last);
  const foldMs = (performance.now() - from) / 20;
  const databaseMb = (databaseBytes(app) - before) / 1e6;

  const offline = await openJournal(app, 'essay-offline');
  keys = 0;
  for (const text of typing(seededRandom('offline'))) {
    if (++keys > HOUR_KEYS / 2) break;
    offline.journal.note({ about: 'answer', target: TARGET, value: essay(text) });
    if (keys % 5 === 2 || keys % 5 === 0) await offline.journal.settle();
  }
  let [bytes, ms] = [0, 0];
  while (offline.journal.waiting > 0) {
    const sent = performance.now();
    const length = await offline.send();
    bytes += length;
    ms += performance.now() - sent + TRIP_MS + (length * 8 * 1000) / MBIT;
  }
  return {
    entries: last.number,
    databaseMb: Math.round(databaseMb * 100) / 100,
    foldMs: Math.round(foldMs * 100) / 100,
    backlogKb: Math.round(bytes / 1000),
    backlogSeconds: Math.round(ms / 100) / 10,
  };
}
