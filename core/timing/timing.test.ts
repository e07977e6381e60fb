import { describe, expect, it } from 'vitest';
import { allowedMs, deadlineOf, GRACE_MS, MINUTE_MS, standingOf, warningsDue } from './deadline';
import { estimateOffset } from './deviceClock';
import { pacePerMark, pacePoint, showClock, showLength } from './pace';

const hour = 60 * MINUTE_MS;

describe('the deadline', () => {
  it('is start + limit × (1 + extra) + granted + paused', () => {
    // 60 min and a quarter more are 75; 5 granted and 3 paused make 83
    const times = {
      startedAt: 1000,
      limitMs: hour,
      extraPercent: 25,
      grantedMs: 5 * MINUTE_MS,
      pausedMs: 3 * MINUTE_MS,
    };
    expect(deadlineOf(times)).toBe(1000 + 83 * MINUTE_MS);
    expect(allowedMs(hour, 0)).toBe(hour);
  });

  const deadlineAt = 10 * hour;
  const open = { deadlineAt, closedAt: null, handedIn: false };
  const timedOut = { deadlineAt, closedAt: deadlineAt, handedIn: false };
  const handedIn = { deadlineAt, closedAt: deadlineAt - hour, handedIn: true };
  it.each([
    ['running', open, -5, -4, 'in-time'],
    ['at the very end', open, 0, 0, 'in-time'],
    ['made before, arrived in the grace', timedOut, -5, GRACE_MS, 'late'],
    ['made before, arrived after the grace', timedOut, -5, GRACE_MS + 1, 'waiting'],
    ['made after the deadline', timedOut, 1, 2, 'after-time'],
    ['after an early hand-in', handedIn, -hour + 1, -hour + 2, 'after-time'],
    ['a device that lies about the future', open, 99 * hour, -1, 'in-time'],
  ] as const)('%s', (_, sitting, made, arrived, standing) => {
    expect(standingOf({ ...sitting, madeAt: deadlineAt + made, arrivedAt: deadlineAt + arrived })).toBe(
      standing,
    );
  });

  it('warns once when the time left passes 15 and 5 minutes', () => {
    const due = (before: number, now: number) => warningsDue([15, 5], before * MINUTE_MS, now * MINUTE_MS);
    expect(due(15.1, 15)).toEqual([15]);
    expect(due(15, 14.9)).toEqual([]);
    expect(due(16, 4)).toEqual([15, 5]); // a lid closed in between
    expect(due(5.5, -1)).toEqual([]);
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
    [42 * MINUTE_MS, 3600, 'about 1 min 10 s a mark'],
    [MINUTE_MS, 6000, 'less than 10 s a mark'],
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
