import 'fake-indexeddb/auto';
import { crc32 } from 'node:zlib';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { emptyDesk } from '../../../core/journal/desk';
import { BATCH_LIMIT, ENTRY_LIMIT, type Entry } from '../../../core/journal/entry';
import { HoldWriter } from '../../../core/journal/holdWriter';
import { canonicalJson } from '../../../core/journal/canonicalJson';
import { applyPatch } from '../../../core/journal/patch';
import { DeviceJournal } from './deviceJournal';
import { deviceDatabase, forgetSitting, keepSitting, storedEntries, type StoredSitting } from './deviceStore';
import { checkSum, digest } from './digest';

const essay = (text: string) => ({ text });
const answer = (value: unknown) => ({ about: 'answer', target: 'note/A', value }) as const;
let made = 0;

async function opened(sitting = `sitting-${++made}`, now = () => 1000) {
  const hold = { hold: 1, token: 'granted' };
  const stored: StoredSitting = {
    link: sitting,
    sitting,
    sealed: [],
    media: [],
    keys: { paper: {}, media: {} },
    plays: {},
    hold,
    base: emptyDesk,
  };
  const known = (await storedEntries(sitting, 1)).length > 0;
  if (!known) await keepSitting(stored, 7);
  return DeviceJournal.open(stored, now);
}

/** What the entries lead to, patches followed, and the chain that they make. */
function follow(entries: readonly Entry[], token = 'granted') {
  const writer = new HoldWriter({ hold: 1, token }, digest);
  const texts = new Map<number, string>();
  for (const { number, ...rest } of entries) {
    writer.append(rest);
    const { patch, value } = rest;
    const text = patch ? applyPatch(texts.get(patch.base.number)!, patch, checkSum) : canonicalJson(value);
    texts.set(number, text!);
  }
  return { last: JSON.parse([...texts.values()].at(-1)!) as unknown, chain: writer.chain };
}

afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

it('check sums are those of the standard, and of Node.js, by which the server makes its own', () => {
  // The standard's own check value: CRC-32/ISO-HDLC of the nine digits.
  expect(checkSum('123456789')).toBe('cbf43926');
  for (const text of ['', 'Zoë 𝄞', JSON.stringify('\ud800')])
    expect(parseInt(checkSum(text), 16)).toBe(crc32(text));
});

describe('the journal on the device', () => {
  it('merges changes of a place into one entry, the last of them always, until a head covers it', async () => {
    const journal = await opened();
    for (const text of ['a', 'ab', 'abc']) journal.note(answer(essay(text)));
    const { head, entries } = await journal.batch();
    expect(entries).toMatchObject([{ number: 1, value: essay('abc') }]);
    expect(head).toMatchObject({ number: 1, chain: follow(entries).chain, heard: 7 });
    // Covered by a head: its bytes never change again.
    journal.note(answer(essay('abcd')));
    expect((await journal.batch()).entries.map((e) => [e.number, e.value])).toEqual([
      [1, essay('abc')],
      [2, essay('abcd')],
    ]);
  });

  it('never merges across places, and freezes single acts at once', async () => {
    const journal = await opened();
    journal.note(answer(essay('a')));
    journal.note({ about: 'flag', target: 'note', value: true });
    journal.note(answer(essay('ab')));
    const { entries } = await journal.batch();
    expect(entries.map((e) => e.about)).toEqual(['answer', 'flag', 'answer']);
  });

  it('lets long values travel as patches, and a whole one every fifty', async () => {
    const journal = await opened();
    let text = 'The supply to bay three dipped at night. '.repeat(20);
    for (let n = 0; n < 120; n++) {
      text += 'x';
      journal.note(answer(essay(text)));
      await journal.settle();
    }
    const entries: Entry[] = [];
    for (let held = 0; held < 120;) {
      const batch = (await journal.batch()).entries;
      entries.push(...batch);
      held += batch.length;
      journal.acknowledge(held, 0);
    }
    const whole = entries.filter((e) => e.value !== undefined).map((e) => e.number);
    expect(whole).toEqual([1, 52, 103]);
    expect(follow(entries).last).toEqual(essay(text));
    // 120 entries of 861 characters each would be over 100 kB.
    expect(JSON.stringify(entries).length).toBeLessThan(30_000);
  });

  it('does not merge changes far apart: what lies between them would travel too', async () => {
    const journal = await opened();
    const text = 'The supply to bay three dipped at night. '.repeat(40);
    journal.note(answer(essay(text)));
    await journal.settle();
    journal.note(answer(essay(`${text}x`)));
    journal.note(answer(essay(`And ${text}x`)));
    journal.note(answer(essay(`And so ${text}x`)));
    const { entries } = await journal.batch();
    expect(entries.map((e) => e.patch?.put)).toEqual([undefined, 'x', 'And so ']);
    expect(follow(entries).last).toEqual(essay(`And so ${text}x`));
  });

  it('sends batches that stay small, and one entry at least', async () => {
    const journal = await opened();
    const sizes: number[] = [];
    for (const [i, length] of [20_000, 20_000, 100_000, 1000].entries()) {
      journal.note({ about: 'answer', target: `part-${i}/A`, value: 'é'.repeat(length) });
      await journal.settle();
    }
    for (let held = 0; held < 4;) {
      const { entries } = await journal.batch();
      sizes.push(entries.length);
      const bytes = new TextEncoder().encode(JSON.stringify(entries)).length;
      expect(bytes <= BATCH_LIMIT + 100 || entries.length === 1).toBe(true);
      held += entries.length;
      journal.acknowledge(held, 0);
    }
    // 40 kB each: two do not fit into 60; 200 kB go alone.
    expect(sizes).toEqual([1, 1, 1, 1]);
  });

  it('does not take what could never be saved, and says so', async () => {
    const journal = await opened();
    journal.onTrouble = vi.fn();
    journal.note(answer(essay('x'.repeat(ENTRY_LIMIT))));
    expect(journal.onTrouble).toHaveBeenCalledWith('too-long');
    expect((await journal.batch()).entries).toEqual([]);
  });

  it('goes on after a reload where it was, with a whole value first', async () => {
    const first = await opened('reloaded');
    const long = 'It dipped again in the morning. '.repeat(20);
    first.note(answer(essay(long)));
    await first.settle();
    first.note(answer(essay(`${long}!`)));
    await first.settle();
    first.acknowledge(1, 900);
    await vi.waitFor(async () =>
      expect((await (await deviceDatabase()).get('holds', ['reloaded', 1]))?.held).toBe(1),
    );
    const second = await opened('reloaded');
    expect(second.desk.answers).toEqual({ 'note/A': essay(`${long}!`) });
    second.note(answer(essay(`${long}!!`)));
    const { entries, head } = await second.batch();
    expect(entries.map((e) => [e.number, e.patch === undefined])).toEqual([
      [2, false],
      [3, true],
    ]);
    expect(head.heard).toBe(900);
  });

  it('sends again what a restored server no longer has', async () => {
    const journal = await opened();
    for (const text of ['a', 'b', 'c']) {
      journal.note(answer(essay(text)));
      await journal.settle();
    }
    journal.acknowledge(3, 0);
    expect((await journal.batch()).entries).toEqual([]);
    journal.acknowledge(1, 0);
    expect((await journal.batch()).entries.map((e) => e.number)).toEqual([2, 3]);
  });

  it('goes on in a fresh hold with whole values of what the server has not', async () => {
    const journal = await opened();
    journal.note(answer(essay('mine')));
    journal.note({ about: 'answer', target: 'dial/A', value: essay('same') });
    const server = { ...emptyDesk, answers: { 'dial/A': essay('same') } };
    const kept = journal.renew({ hold: 2, token: 'again' }, server);
    expect(kept.map(({ hold, entry }) => [hold, entry.number, entry.target])).toEqual([[2, 1, 'note/A']]);
    const { head, entries } = await journal.batch();
    expect([head.hold, head.token, follow(entries, 'again').chain]).toEqual([2, 'again', head.chain]);
  });

  it('leaves behind what a vanishing page has not written yet; the next opening takes it in, once', async () => {
    const box = new Map<string, string>();
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => box.get(key) ?? null,
      setItem: (key: string, value: string) => void box.set(key, value),
      removeItem: (key: string) => void box.delete(key),
    });
    const vanishing = await opened('vanishing');
    const put = vi.spyOn(await deviceDatabase(), 'put').mockReturnValue(new Promise(() => undefined));
    vanishing.note(answer(essay('65')));
    await Promise.resolve();
    vanishing.leaveBehind();
    put.mockRestore();
    const next = await opened('vanishing');
    expect(next.desk.answers).toEqual({ 'note/A': essay('65') });
    expect((await next.batch()).entries).toHaveLength(1);
    expect(box.size).toBe(0);
  });

  it('sends from memory what the device cannot keep, and says so', async () => {
    const journal = await opened();
    journal.onTrouble = vi.fn();
    const put = vi.spyOn(await deviceDatabase(), 'put').mockRejectedValue(new Error('no room'));
    journal.note(answer(essay('a')));
    const { entries } = await journal.batch();
    put.mockRestore();
    expect(journal.onTrouble).toHaveBeenCalledWith('device');
    expect(entries).toHaveLength(1);
  });

  it('leaves nothing on the device after a complete hand-in', async () => {
    const journal = await opened('forgotten');
    journal.note(answer(essay('a')));
    await journal.batch();
    journal.forget();
    await forgetSitting('forgotten', true);
    journal.acknowledge(1, 0);
    journal.note(answer(essay('b')));
    const db = await deviceDatabase();
    const left = await Promise.all(
      (['sittings', 'holds', 'entries', 'moments'] as const).map(async (store) => db.getAllKeys(store)),
    );
    expect(JSON.stringify(left)).not.toContain('forgotten');
  });
});
