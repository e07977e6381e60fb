import { describe, expect, it } from 'vitest';
import { judgeConnection, summariseTrips, troublesOfPicture } from './checks';
import { meanDifference, measurePicture } from './pictureMeasures';
import { stageOf, type StageInput } from './stage';

const none = { details: false, checks: false, picture: false, rules: false };
const all = { details: true, checks: true, picture: true, rules: true };
const base: StageInput = {
  now: 50,
  doorsAt: 5,
  opensAt: 10,
  closesAt: 100,
  startRule: 'opening time',
  admitted: false,
  attemptsAllowed: 1,
  pauseMs: 0,
  requested: false,
  sittings: [],
  done: none,
  released: false,
};
const running = { startedAt: 40, closedAt: null };
const CLOSED = 45;
const closed = { startedAt: 40, closedAt: CLOSED };
const again = { sittings: [closed] };
const prepared = { startedAt: null, closedAt: null };

describe('the stage', () => {
  it.each<[string, Partial<StageInput>, unknown]>([
    ['before the doors', { now: 4 }, { at: 'too early' }],
    ['between doors and opening', { now: 9 }, { at: 'arriving', step: 'details' }],
    ['ready before the opening', { now: 9, done: all }, { at: 'arriving', step: 'waiting' }],
    ['ready at the opening', { now: 10, done: all }, { at: 'arriving', step: 'cover' }],
    ['without the door code', { done: all, startRule: 'door code' }, { at: 'arriving', step: 'waiting' }],
    ['not admitted', { done: all, startRule: 'by hand' }, { at: 'arriving', step: 'waiting' }],
    ['admitted', { done: all, startRule: 'by hand', admitted: true }, { at: 'arriving', step: 'cover' }],
    ['at the moment it closes', { now: 100 }, { at: 'over' }],
    ['fresh', {}, { at: 'arriving', step: 'details' }],
    ['checks next', { done: { ...none, details: true } }, { at: 'arriving', step: 'checks' }],
    [
      'all done, the paper prepared',
      { done: { details: true, checks: true, picture: true, rules: true }, sittings: [prepared] },
      { at: 'arriving', step: 'cover' },
    ],
    ['running on after the window', { now: 150, sittings: [running] }, { at: 'running' }],
    ['handed in', { sittings: [closed] }, { at: 'being marked' }],
    ['released', { sittings: [closed], released: true }, { at: 'result' }],
    ['a second attempt is left', { ...again, attemptsAllowed: 2 }, { at: 'between', next: 2, from: CLOSED }],
    [
      '…after a pause',
      { ...again, attemptsAllowed: 2, pauseMs: 7, released: true },
      { at: 'between', next: 2, from: CLOSED + 7 },
    ],
    [
      '…and asked for',
      { ...again, attemptsAllowed: 2, requested: true },
      { at: 'arriving', step: 'details' },
    ],
    ['…but the window is over', { ...again, attemptsAllowed: 2, now: 120 }, { at: 'being marked' }],
    [
      '…but it is over before the pause is',
      { ...again, attemptsAllowed: 2, pauseMs: 100 },
      { at: 'being marked' },
    ],
  ])('%s', (_, change, stage) => expect(stageOf({ ...base, ...change })).toEqual(stage));
});

describe('checks', () => {
  it('sums up round trips by median and half the quartile range', () => {
    // sorted 10 20 30 40 50: median 30, quartiles 20 and 40
    expect(summariseTrips([50, 10, null, 30, 20, 40])).toEqual({ medianMs: 30, spreadMs: 10, lost: 1 });
    expect(() => summariseTrips([null])).toThrow(RangeError);
    expect(judgeConnection({ medianMs: 38, spreadMs: 6, lost: 0 })).toBe('good');
    expect(judgeConnection({ medianMs: 38, spreadMs: 6, lost: 2 })).toBe('could be better');
  });

  const good = { light: 120, sharpness: 0.05, flatShare: 0.2, faces: 1, insideFrame: true, still: false };
  it.each([
    [good, []],
    [{ ...good, light: 12, flatShare: 0.95, faces: 0 }, ['covered']],
    [{ ...good, light: 30 }, ['dark']],
    [{ ...good, still: true }, ['frozen']],
    [{ ...good, light: 240 }, ['bright']],
    [{ ...good, faces: 0 }, ['nobody']],
    [{ ...good, faces: 2 }, ['several']],
    [{ ...good, insideFrame: false, sharpness: 0.001 }, ['off-centre', 'blurred']],
  ])('sees what is wrong with a picture', (facts, troubles) =>
    expect(troublesOfPicture(facts)).toEqual(troubles),
  );
});

describe('measuring a picture', () => {
  const picture = (at: (x: number, y: number) => number) => {
    const rgba = new Uint8ClampedArray(64 * 48 * 4);
    for (let i = 0; i < 64 * 48; i++) rgba.fill(at(i % 64, Math.floor(i / 64)), i * 4, i * 4 + 3);
    return measurePicture(rgba, 64, 48);
  };

  it('tells a picture that moves from one that does not', () => {
    const [a, b] = [new Uint8ClampedArray([9, 9, 9, 255]), new Uint8ClampedArray([12, 9, 9, 255])];
    expect(meanDifference(a, a)).toBe(0);
    // one of three colours differs by 3
    expect(meanDifference(a, b)).toBe(1);
  });

  it('finds a flat picture flat', () => {
    expect(picture(() => 20)).toEqual({ light: 20, sharpness: 0, flatShare: 1 });
  });

  it('finds a chequered picture sharper than a slope of the same range', () => {
    const chequered = picture((x, y) => (((x >> 2) + (y >> 2)) % 2 === 0 ? 255 : 0));
    const slope = picture((x) => x * 4);
    expect(chequered.flatShare).toBe(0);
    expect(chequered.sharpness).toBeGreaterThan(10 * slope.sharpness);
  });
});
