import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import '../../core/kinds/candidateKinds';
import type { Page } from '../../core/files/pages';
import { drawForm } from '../../core/forms/drawForm';
import { pageOf } from '../../core/kinds/upload/samples';
import { technicianPaper } from '../../demo/technicianPaper';
import { storeResponse } from '../../core/kinds/stored';
import { emptyDesk } from '../../core/journal/desk';
import type { LiveView } from '../../core/live/api';
import { deskInHand, deskTime as time, someReceipt, type DeskInHand } from '../testing/deskWith';
import { coverOf } from './coverOf';
import { endedSections } from './deskStore';

const HOUR = 3_600_000;

let desk: DeskInHand;
const open = (more: Parameters<typeof deskInHand>[0] = {}) => {
  desk = deskInHand(more);
  return desk.store;
};

beforeEach(() => {
  vi.useFakeTimers();
});
afterEach(() => {
  desk.close();
  vi.useRealTimers();
});
const pass = (ms: number) => {
  desk.now += ms;
  return vi.advanceTimersByTimeAsync(300);
};

describe('the desk', () => {
  it('notes what is done before it shows it, and keeps the place', () => {
    const store = open();
    store.getState().answer('parts-of-a-seed/A', storeResponse('choice', { chosen: ['root'] }));
    store.getState().go(1);
    store.getState().toggleFlag();
    expect(desk.noted).toEqual([
      'opened parts-of-a-seed',
      'place parts-of-a-seed',
      'answer parts-of-a-seed/A',
      'opened which-trays',
      'place which-trays',
      'flag which-trays',
    ]);
    expect(store.getState().progress[0]).toMatchObject({ state: 'done' });
    expect(store.getState().progress[1]).toMatchObject({ state: 'looked at', flagged: true });
  });

  it('goes to an unopened question in one change of the state', () => {
    const store = open();
    const changes = vi.fn();
    store.subscribe(changes);
    store.getState().go(1);
    expect(changes).toHaveBeenCalledTimes(1);
    expect(store.getState()).toMatchObject({ index: 1, desk: { place: 'which-trays' } });
  });

  it('opens where one was', () => {
    const store = open({ desk: { ...emptyDesk, place: 'moisture' } });
    expect(store.getState().index).toBe(6);
  });

  it('warns at fifteen and at five minutes and of the last one, once each, and the warning goes by itself', async () => {
    const store = open();
    const warned = () => store.getState().warnedAt !== null;
    await pass(HOUR - 15 * 60_000 + 1000);
    expect(warned()).toBe(true);
    store.getState().dismissWarning();
    await pass(1000);
    expect(warned()).toBe(false);
    await pass(10 * 60_000);
    expect(warned()).toBe(true);
    await pass(46_000);
    expect(warned()).toBe(false);
    await pass(3.25 * 60_000);
    // 5 min − 46 s − 3 min 15 s leave 59 s.
    expect(warned()).toBe(true);
  });

  it('warns nobody of a time that had passed before the desk was opened', async () => {
    const store = open({ time: { ...time, leftMs: 32_000, deadlineAt: 32_000 } });
    await pass(1000);
    expect(store.getState().warnedAt).toBeNull();
  });

  it('hands in by itself when the time is over, and not a moment before', async () => {
    const store = open();
    await pass(HOUR - 1000);
    expect(desk.handIns).toEqual([]);
    await pass(1001);
    expect(desk.handIns).toEqual(['time']);
    expect(store.getState().receipt).toEqual(someReceipt);
  });

  it('goes on when the server knows of more time', async () => {
    const store = open();
    desk.outcomes.push({ notYetMs: HOUR });
    await pass(HOUR + 1);
    desk.events.onTime({ ...time, deadlineAt: 2 * HOUR, leftMs: HOUR });
    await pass(1000);
    expect([desk.handIns.length, store.getState().receipt]).toEqual([1, null]);
    expect(store.getState().leftMs).toBeGreaterThan(0);
  });

  it('keeps a hand-in without a connection in view, and tries until it has arrived', async () => {
    const store = open();
    desk.outcomes.push({ queuedAt: 77 }, { queuedAt: 77 });
    await store.getState().handIn('candidate');
    expect(coverOf(store.getState())).toBe('queued');
    await vi.advanceTimersByTimeAsync(5000);
    expect(store.getState().receipt).toEqual(someReceipt);
  });

  it('stands still in a pause, and shows why', async () => {
    const store = open();
    desk.events.onTime({ ...time, leftMs: 1000, stopped: { why: 'pause', since: 0, until: null } });
    await pass(5000);
    expect(store.getState().leftMs).toBe(1000);
    expect(coverOf(store.getState())).toBe('pause');
  });

  it('comes back from a break by itself when the allowance is used up', async () => {
    const store = open();
    const resting = { why: 'break', since: 0, until: 60_000 } as const;
    desk.events.onTime({ ...time, leftMs: HOUR, deadlineAt: HOUR + 60_000, stopped: resting });
    await pass(59_000);
    expect([coverOf(store.getState()), store.getState().leftMs]).toEqual(['break', HOUR]);
    await pass(2000);
    expect([coverOf(store.getState()), store.getState().leftMs]).toEqual([null, HOUR - 1000]);
  });

  it('tells once what the invigilator says, not what was said before', () => {
    const store = open();
    const said = (...texts: string[]): LiveView => ({
      now: 0,
      stage: { at: 'running' },
      opensAt: 0,
      time: null,
      hand: null,
      place: null,
      triesLeft: 5,
      messages: texts.map((text, i) => ({ id: i + 1, at: 0, from: 'invigilator', text })),
      hold: null,
      plays: {},
      marked: null,
      pages: null,
    });
    desk.events.onLive(said('an old word'));
    expect(store.getState().told).toBeNull();
    desk.events.onLive(said('an old word', 'a new one'));
    expect(store.getState().told).toBe('a new one');
    store.getState().dismissTold();
    desk.events.onLive(said('an old word', 'a new one'));
    expect(store.getState().told).toBeNull();
  });

  it('takes pages of a joined phone into the answer, each once, and none while the clock stands still', () => {
    const form = { seed: 'pages', locale: 'en', transcripts: false, aids: [] };
    const store = open({ paper: drawForm(technicianPaper(2), form).paper });
    const target = 'how-many-to-sow/A';
    const live = (...signs: string[]): LiveView => ({
      ...({ now: 0, stage: { at: 'running' }, opensAt: 0, time: null, hand: null, place: null } as const),
      ...{ triesLeft: 5, messages: [], hold: null, plays: {}, marked: null },
      pages: {
        states: {},
        phones: true,
        phone: null,
        joined: { [target]: signs.map((sign) => pageOf(sign)) },
      },
    });
    const answers = () => desk.noted.filter((one) => one === `answer ${target}`).length;
    desk.events.onLive(live('a'));
    desk.events.onLive(live('a'));
    expect(answers()).toBe(1);
    desk.events.onTime({ ...time, stopped: { why: 'pause', since: 0, until: null } });
    desk.events.onLive(live('a', 'b'));
    expect(answers()).toBe(1);
    desk.events.onTime(time);
    expect(answers()).toBe(2);
    const { response } = store.getState().desk.answers[target] as {
      response: { pages: Page[]; joined: number };
    };
    expect([response.pages.map((page) => page.hash[0]), response.joined]).toEqual([['a', 'b'], 2]);
  });

  it('is put away when another window takes it over', () => {
    const store = open();
    desk.events.onElsewhere();
    expect(coverOf(store.getState())).toBe('elsewhere');
  });

  it('knows which sections have run out', () => {
    expect(endedSections({ time: { ...time, sectionEnds: { A: 10, B: 30 } }, now: 20 })).toEqual(['A']);
  });
});
