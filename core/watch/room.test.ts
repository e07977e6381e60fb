import { describe, expect, it } from 'vitest';
import {
  OUT_OF_REACH_MS,
  roundsByNeed,
  type WatchRoundRow,
  type WatchRow,
  type WatchState,
  type WatchView,
} from './api';
import { applyChange, roomAt, rowAt, timeGoneOf } from './room';

const MINUTE = 60_000;
const row = (invitation: number, name: string, change: Partial<WatchRow> = {}): WatchRow => ({
  invitation,
  name,
  reference: `R-${invitation}`,
  arrangements: [],
  state: 'writing',
  startedAt: 0,
  deadlineAt: 60 * MINUTE,
  at: 20 * MINUTE,
  usedMs: 20 * MINUTE,
  leftMs: 40 * MINUTE,
  marksDone: 0,
  heardAt: 20 * MINUTE,
  hand: null,
  stopped: null,
  clean: true,
  notes: [],
  pictures: [],
  plays: [],
  ...change,
});
const room = (rows: readonly WatchRow[], now = 20 * MINUTE): WatchView => ({
  round: 1,
  title: 'November',
  now,
  opensAt: 0,
  closesAt: 90 * MINUTE,
  timeZone: 'UTC',
  startRule: 'by hand',
  doorCode: null,
  rows,
});

describe('a row that was sent a while ago', () => {
  it('has the time run on while the candidate writes, and no further than to its end', () => {
    // 20 of 60 minutes used, ten minutes later 30; after two hours all 60
    const later = rowAt(row(1, 'Ada'), 30 * MINUTE);
    expect([later.usedMs, later.leftMs, timeGoneOf(later)]).toEqual([30 * MINUTE, 30 * MINUTE, 0.5]);
    const end = rowAt(row(1, 'Ada'), 140 * MINUTE);
    expect([end.usedMs, end.leftMs, timeGoneOf(end)]).toEqual([60 * MINUTE, 0, 1]);
  });

  it('stands still while the clock is stopped, and once it is handed in', () => {
    for (const state of ['stopped', 'handed in', 'waiting'] as const) {
      const still = row(1, 'Ada', { state });
      expect(rowAt(still, 50 * MINUTE)).toBe(still);
    }
  });

  it('is out of reach once nothing was heard for too long, and not a moment before', () => {
    const stateAt = (passed: number) => rowAt(row(1, 'Ada'), 20 * MINUTE + passed).state;
    expect([stateAt(OUT_OF_REACH_MS), stateAt(OUT_OF_REACH_MS + 1)]).toEqual(['writing', 'out of reach']);
    expect(rowAt(row(1, 'Ada', { heardAt: null }), 20 * MINUTE).state).toBe('out of reach');
  });

  it('counts no share of a time that was never there', () => {
    expect(timeGoneOf({ usedMs: 0, leftMs: 0 })).toBe(0);
  });
});

describe('a room', () => {
  it('puts who needs someone first, and those alike by name', () => {
    const of = (name: string, state: WatchState, change: Partial<WatchRow> = {}) =>
      row(name.length, name, { state, ...change });
    const rows = [
      of('Zoe', 'writing'),
      of('Anna', 'writing'),
      of('Bo', 'handed in'),
      of('Corin', 'waiting'),
      of('Dagmar', 'writing', { hand: { at: 1, text: 'the sound stopped' } }),
      of('Everard', 'writing', { heardAt: 0 }),
    ];
    const names = roomAt(room(rows)).map((r) => r.name);
    expect(names).toEqual(['Dagmar', 'Everard', 'Corin', 'Anna', 'Zoe', 'Bo']);
  });

  it('takes changed rows in their places, new ones besides, and when others were heard', () => {
    const before = room([row(1, 'Ada'), row(2, 'Ben'), row(3, 'Cleo')]);
    const rows = [row(2, 'Ben', { state: 'handed in' }), row(4, 'Dora')];
    const heard = [[1, 21 * MINUTE] as const, [2, 22 * MINUTE] as const];
    const after = applyChange(before, { now: 23 * MINUTE, doorCode: 'WREN 42', rows, heard });
    expect(after.rows.map((r) => [r.name, r.state, r.heardAt! / MINUTE])).toEqual([
      ['Ada', 'writing', 21],
      ['Ben', 'handed in', 22],
      ['Cleo', 'writing', 20],
      ['Dora', 'writing', 20],
    ]);
    expect([after.now, after.doorCode, after.title]).toEqual([23 * MINUTE, 'WREN 42', 'November']);
    expect(after.rows[2]).toBe(before.rows[2]);
  });
});

describe('the rounds that are watched over', () => {
  const round = (id: number, window: WatchRoundRow['window'], handSince: number | null): WatchRoundRow => ({
    id,
    title: '',
    opensAt: 0,
    closesAt: 1,
    timeZone: 'UTC',
    window,
    hands: handSince === null ? 0 : 1,
    handSince,
  });

  it('begin with the hand that has waited longest, then come those that are open', () => {
    const rounds = [
      round(1, 'over', null),
      round(2, 'open', null),
      round(3, 'open', 50),
      round(4, 'later', null),
      round(5, 'over', 40),
    ];
    expect(roundsByNeed(rounds).map(({ id }) => id)).toEqual([5, 3, 2, 4, 1]);
  });
});
