import { describe, expect, it } from 'vitest';
import { SteadyClock } from './clock';

const START = Date.UTC(2026, 11, 1, 9);
const SECOND = 1000;
const HOUR = 3600 * SECOND;

/** A machine whose two clocks are turned by hand. */
function machine() {
  const at = { wall: START, steady: 5000 };
  const clock = new SteadyClock({ wall: () => at.wall, steady: () => at.steady });
  const pass = (ms: number) => {
    at.wall += ms;
    at.steady += ms;
  };
  return { at, clock, pass };
}

describe('the clock of the server', () => {
  it('goes on with the time that passes', () => {
    const { clock, pass } = machine();
    pass(7 * SECOND);
    expect([clock.now(), clock.check(), clock.doubt()]).toEqual([START + 7 * SECOND, false, null]);
  });

  it.each([HOUR, -HOUR, 2001, -2001])('does not follow a jump of %i ms, and says so', (jump) => {
    const { at, clock, pass } = machine();
    at.wall += jump;
    pass(6 * SECOND);
    expect(clock.now()).toBe(START + 6 * SECOND);
    expect(clock.check()).toBe(true);
    expect(clock.doubt()).toEqual({ since: START + 6 * SECOND, aheadMs: jump });
    // Told once; and over when the machine's clock is back.
    expect(clock.check()).toBe(false);
    at.wall -= jump;
    pass(SECOND);
    expect([clock.check(), clock.doubt(), clock.now()]).toEqual([true, null, START + 7 * SECOND]);
  });

  it('stands still with a machine that is suspended, until the new time is believed', () => {
    const { at, clock, pass } = machine();
    at.wall += 30 * 60 * SECOND;
    pass(SECOND);
    clock.check();
    expect(clock.now()).toBe(START + SECOND);
    clock.believe();
    expect([clock.now(), clock.doubt()]).toEqual([START + SECOND + 30 * 60 * SECOND, null]);
  });

  it('follows small corrections, and never goes back by itself', () => {
    const { at, clock, pass } = machine();
    at.wall += 1500;
    expect([clock.check(), clock.now()]).toEqual([false, START + 1500]);
    at.wall -= 1900;
    clock.check();
    expect(clock.now()).toBe(START + 1500);
    pass(SECOND);
    expect(clock.now()).toBe(START + 1500);
    pass(SECOND);
    expect(clock.now()).toBe(START - 400 + 2 * SECOND);
  });

  it.each([
    ['behind the newest row', START + 10 * 60 * SECOND, false, true],
    ['an hour and more ahead of it while sittings are open', START - HOUR - 1, true, true],
    ['an hour ahead of it while none is open', START - 24 * HOUR, false, false],
    ['less than an hour ahead of it', START - HOUR, true, false],
    ['of a new database', 0, false, false],
  ])('at a start %s', (_, newest, open, doubted) => {
    const { clock, pass } = machine();
    clock.startFrom({ newest, open });
    expect(clock.doubt() !== null).toBe(doubted);
    pass(SECOND);
    // The time goes on from the newest row, or with the machine's.
    expect(clock.now()).toBe((doubted ? newest : START) + SECOND);
    clock.believe();
    expect([clock.now(), clock.doubt()]).toEqual([START + SECOND, null]);
  });
});
