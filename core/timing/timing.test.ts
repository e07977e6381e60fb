import { describe, expect, it } from 'vitest';
import { allowedMs, MINUTE_MS, warningsDue, warningsOf } from './deadline';
import { estimateOffset } from './deviceClock';
import { pacePerMark, pacePoint, showClock, showLength } from './pace';

const hour = 60 * MINUTE_MS;

describe('the deadline', () => {
  it('counts extra time', () => {
    // 60 min and a quarter more are 75
    expect(allowedMs(hour, 25)).toBe(75 * MINUTE_MS);
    expect(allowedMs(hour, 0)).toBe(hour);
  });

  it('warns once when the time left passes 15 and 5 minutes, and the last one', () => {
    const due = (before: number, now: number) => warningsDue([15, 5], before * MINUTE_MS, now * MINUTE_MS);
    expect(due(15.1, 15)).toBe(true);
    expect(due(15, 14.9)).toBe(false);
    expect(due(16, 4)).toBe(true); // a lid closed in between
    expect(due(1.01, 0.99)).toBe(true);
    expect(due(5.5, -1)).toBe(false);
    expect(warningsOf([5, 15, 5])).toEqual([15, 5, 1]);
  });
});

describe('the device’s clock', () => {
  it('trusts the shortest round trip', () => {
    const exchanges = [
      { sentAt: 0, receivedAt: 400, serverAt: 10_390 },
      { sentAt: 1000, receivedAt: 1040, serverAt: 11_020 },
    ];
    expect(estimateOffset(exchanges)).toEqual({ offsetMs: 10_000, errorMs: 20 });
  });
  it('needs an exchange', () => expect(() => estimateOffset([])).toThrow(RangeError));
});

describe('pace', () => {
  const questions = [{ minutes: 10 }, { minutes: 30 }, { minutes: 20 }];
  it.each([
    [0, { index: 0, within: 0 }],
    [0.5, { index: 1, within: 2 / 3 }], // 30 of 60 min: 20 into the 30 of the second
    [1, { index: 2, within: 1 }],
    [7, { index: 2, within: 1 }],
  ])('after %f of the time', (share, point) => expect(pacePoint(questions, share)).toEqual(point));

  it.each([
    [42 * MINUTE_MS, 3600, '1 min 10 s'],
    [MINUTE_MS, 6000, ''],
    [0, 100, null],
    [MINUTE_MS, 0, null],
  ])('%i ms for %i', (left, open, words) => expect(pacePerMark(left, open)).toBe(words));

  it.each([
    [75 * MINUTE_MS, '1:15:00', '1 h 15 min'],
    [47 * MINUTE_MS + 11_200, '47:12', '47 min'],
    [-5, '0:00', '0 min'],
    [hour, '1:00:00', '60 min'],
    [2 * hour, '2:00:00', '2 h'],
  ])('%i ms is %s, %s', (ms, clock, length) => {
    expect(showClock(ms)).toBe(clock);
    expect(showLength(ms)).toBe(length);
  });
});
