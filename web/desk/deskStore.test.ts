import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { technicianPaper } from '../../demo/technicianPaper';
import { emptyDesk } from '../../core/journal/fold';
import { buildCandidatePaper } from '../../core/papers/candidatePaper';
import type { LiveView } from '../../core/live/api';
import type { Receipt, TimeView } from '../../core/sittings/api';
import type { DeskBackend, DeskEvents, HandInOutcome } from './backend';
import { coverOf } from './Covered';
import { createDesk, endedSections, type DeskSession } from './deskStore';
import type { OpenedDesk } from './openDesk';

const HOUR = 3_600_000;
const paper = buildCandidatePaper(technicianPaper(), 'desk');
const time: TimeView = {
  ...{ startedAt: 0, leftMs: HOUR, deadlineAt: HOUR, stopped: null, breakLeftMs: 0, sectionEnds: {} },
};
const receipt: Receipt = {
  ...{
    code: 'AAAA',
    handedInAt: 1,
    arrivedAt: null,
    usedMs: 1,
    closedBy: 'candidate',
    answered: 1,
    parts: 2,
  },
};

let now = 0;
let session: DeskSession;
let events: DeskEvents;
let noted: string[];
let outcomes: HandInOutcome[];
const handIn = vi.fn();

function open(more: Partial<OpenedDesk> = {}) {
  const backend: DeskBackend = {
    begin: (told) => {
      events = told;
      return () => undefined;
    },
    note: ({ about, target }) => void noted.push(`${about} ${target}`),
    handIn: (by) => {
      handIn(by);
      return Promise.resolve(outcomes.shift() ?? { done: receipt });
    },
    help: null,
  };
  session = createDesk({
    ...{ paper, desk: emptyDesk, time, timed: true, clock: { now: () => now } },
    ...{ backend, queuedAt: null, elsewhere: false, ...more },
  });
  return session.store;
}

beforeEach(() => {
  vi.useFakeTimers();
  [now, noted, outcomes] = [0, [], []];
  handIn.mockReset();
});
afterEach(() => {
  session.close();
  vi.useRealTimers();
});
const pass = (ms: number) => {
  now += ms;
  return vi.advanceTimersByTimeAsync(300);
};

describe('the desk', () => {
  it('notes what is done before it shows it, and keeps the place', () => {
    const store = open();
    store.getState().answer('parts-of-a-seed/A', { chosen: ['root'] });
    store.getState().go(1);
    store.getState().toggleFlag();
    expect(noted).toEqual([
      ...['opened parts-of-a-seed', 'place parts-of-a-seed', 'answer parts-of-a-seed/A'],
      ...['opened which-trays', 'place which-trays', 'flag which-trays'],
    ]);
    expect(store.getState().progress[0]).toMatchObject({ state: 'done' });
    expect(store.getState().progress[1]).toMatchObject({ state: 'looked at', flagged: true });
  });

  it('opens where one was', () => {
    const store = open({ desk: { ...emptyDesk, place: 'moisture' } });
    expect(store.getState().index).toBe(6);
  });

  it('warns at fifteen and at five minutes, once', async () => {
    const store = open();
    await pass(HOUR - 15 * 60_000 + 1000);
    expect(store.getState().warning).toBe(15);
    store.getState().dismissWarning();
    await pass(1000);
    expect(store.getState().warning).toBeNull();
    await pass(10 * 60_000);
    expect(store.getState().warning).toBe(5);
  });

  it('hands in by itself when the time is over, and not a moment before', async () => {
    const store = open();
    await pass(HOUR - 1000);
    expect(handIn).not.toHaveBeenCalled();
    await pass(1001);
    expect(handIn).toHaveBeenCalledWith('time');
    expect(store.getState().receipt).toEqual(receipt);
  });

  it('goes on when the server knows of more time', async () => {
    const store = open();
    outcomes = [{ notYet: true }];
    await pass(HOUR + 1);
    events.onTime({ ...time, deadlineAt: 2 * HOUR, leftMs: HOUR });
    await pass(1000);
    expect([handIn.mock.calls.length, store.getState().receipt]).toEqual([1, null]);
    expect(store.getState().leftMs).toBeGreaterThan(0);
  });

  it('keeps a hand-in without a connection in view, and tries until it has arrived', async () => {
    const store = open();
    outcomes = [{ queuedAt: 77 }, { queuedAt: 77 }];
    await store.getState().handIn('candidate');
    expect(coverOf(store.getState())).toBe('queued');
    await vi.advanceTimersByTimeAsync(5000);
    expect(store.getState().receipt).toEqual(receipt);
  });

  it('stands still in a pause, and shows why', async () => {
    const store = open();
    events.onTime({ ...time, leftMs: 1000, stopped: { why: 'pause', since: 0, until: null } });
    await pass(5000);
    expect(store.getState().leftMs).toBe(1000);
    expect(coverOf(store.getState())).toBe('pause');
  });

  it('comes back from a break by itself when the allowance is used up', async () => {
    const store = open();
    const resting = { why: 'break', since: 0, until: 60_000 } as const;
    events.onTime({ ...time, leftMs: HOUR, deadlineAt: HOUR + 60_000, stopped: resting });
    await pass(59_000);
    expect([coverOf(store.getState()), store.getState().leftMs]).toEqual(['break', HOUR]);
    await pass(2000);
    expect([coverOf(store.getState()), store.getState().leftMs]).toEqual([null, HOUR - 1000]);
  });

  it('tells once what the invigilator says, not what was said before', () => {
    const store = open();
    const said = (...texts: string[]): LiveView => ({
      ...{ now: 0, stage: { at: 'running' }, opensAt: 0, time: null, hand: null, place: null, triesLeft: 5 },
      messages: texts.map((text, i) => ({ id: i + 1, at: 0, from: 'invigilator', text })),
      holder: null,
    });
    events.onLive(said('an old word'));
    expect(store.getState().told).toBeNull();
    events.onLive(said('an old word', 'a new one'));
    expect(store.getState().told).toBe('a new one');
    store.getState().dismissTold();
    events.onLive(said('an old word', 'a new one'));
    expect(store.getState().told).toBeNull();
  });

  it('is put away when another window takes it over', () => {
    const store = open();
    events.onElsewhere();
    expect(coverOf(store.getState())).toBe('elsewhere');
  });

  it('knows which sections have run out', () => {
    expect(endedSections({ time: { ...time, sectionEnds: { A: 10, B: 30 } }, now: 20 })).toEqual(['A']);
  });
});
