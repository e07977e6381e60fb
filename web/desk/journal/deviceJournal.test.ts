import 'fake-indexeddb/auto';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { DeviceJournal } from './deviceJournal';
import { deviceDatabase, acknowledgedEntries } from './deviceStore';
import { retryAfterMs } from './sender';

const typed = (text: string) => ({ about: 'answer', target: 'dial/A', value: { typed: text } }) as const;
const journalOf = (sitting: string) => new DeviceJournal(sitting, () => 1000);

describe('the journal on the device', () => {
  afterEach(() => void vi.useRealTimers());

  it('writes the first change at once and gathers the following ones, the last always', async () => {
    const journal = journalOf('one');
    for (const text of ['1', '12', '123', '1234']) journal.note(typed(text));
    await journal.settle();
    const values = (await journal.unsent()).map((e) => [e.seq, e.value]);
    expect(values).toEqual([
      [1, { typed: '1' }],
      [2, { typed: '1234' }],
    ]);
  });

  it('gives what waits in the order of writing, over all openings of the desk', async () => {
    const [first, second] = [journalOf('two'), journalOf('two')];
    first.note(typed('a'));
    await first.settle();
    second.note(typed('b'));
    await second.settle();
    const waiting = await second.unsent();
    expect(waiting.map((e) => e.value)).toEqual([{ typed: 'a' }, { typed: 'b' }]);
    expect(waiting[0]!.device).not.toBe(waiting[1]!.device);
    expect(await second.unsent(1)).toHaveLength(1);
  });

  it('keeps what is acknowledged for a desk without a network, and out of the way of sending', async () => {
    const journal = journalOf('three');
    journal.note(typed('a'));
    await journal.settle();
    await journal.acknowledge(await journal.unsent());
    expect(await journal.count()).toBe(0);
    expect((await acknowledgedEntries('three')).map((e) => e.value)).toEqual([{ typed: 'a' }]);
  });

  it('leaves behind what a vanishing page has not written yet; the next opening takes it in, once', async () => {
    const box = new Map<string, string>();
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => box.get(key) ?? null,
      setItem: (key: string, value: string) => void box.set(key, value),
      removeItem: (key: string) => void box.delete(key),
    });
    const vanishing = journalOf('five');
    vanishing.note(typed('6'));
    vanishing.note(typed('65'));
    vanishing.leaveBehind();
    // The database gets both as well here; what counts is that nothing is there twice.
    await vanishing.settle();
    const next = journalOf('five');
    expect((await next.unsent()).map((e) => e.value)).toEqual([{ typed: '6' }, { typed: '65' }]);
    const left = [...(await next.unsent())].map(({ turn: _, ...entry }) => entry);
    await next.drop(await next.unsent());
    box.set('clear-sitting-left-behind-five', JSON.stringify(left));
    const later = journalOf('five');
    expect((await later.unsent()).map((e) => e.value)).toEqual([{ typed: '6' }, { typed: '65' }]);
    expect(box.size).toBe(0);
    vi.unstubAllGlobals();
  });

  it('sends from memory what the device cannot keep, and says so', async () => {
    const journal = journalOf('four');
    const trouble = vi.fn();
    journal.onTrouble = trouble;
    const add = vi.spyOn(await deviceDatabase(), 'add').mockRejectedValue(new Error('no room'));
    journal.note(typed('a'));
    await journal.settle();
    add.mockRestore();
    expect(trouble).toHaveBeenCalledOnce();
    const waiting = await journal.unsent();
    expect(waiting.map((e) => e.value)).toEqual([{ typed: 'a' }]);
    await journal.acknowledge(waiting);
    expect(await journal.count()).toBe(0);
  });
});

describe('trying again', () => {
  it.each([
    // 1 s doubled at each failure, spread from three quarters to five quarters, never beyond 15 s and a quarter
    [1, 0, 750],
    [1, 1, 1250],
    [3, 0.5, 4000],
    [9, 1, 18_750],
  ])('after failure %i with luck %d: %i ms', (failures, random, ms) =>
    expect(retryAfterMs(failures, random)).toBe(ms),
  );
});
