import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ServerClock } from './serverClock';

describe('the server’s time on a device', () => {
  beforeEach(() => void vi.useFakeTimers({ toFake: ['performance', 'Date', 'setTimeout'] }));
  afterEach(() => void vi.useRealTimers());

  const answer = (now: number, trip: number) => () =>
    new Promise<{ now: number }>((resolve) => setTimeout(() => resolve({ now }), trip));

  it('is learnt from an exchange, half-way through it, and goes on by the monotonic clock', async () => {
    const clock = new ServerClock();
    const learning = clock.learn(answer(1_000_000, 200));
    await vi.advanceTimersByTimeAsync(200);
    await learning;
    expect(clock.now()).toBe(1_000_100);
    await vi.advanceTimersByTimeAsync(5000);
    expect(clock.now()).toBe(1_005_100);
  });

  it('does not move when the device’s clock is set by hours', async () => {
    const clock = new ServerClock();
    const learning = clock.learn(answer(1_000_000, 0));
    await vi.advanceTimersByTimeAsync(0);
    await learning;
    vi.setSystemTime(Date.now() + 3 * 3_600_000);
    expect(clock.now()).toBe(1_000_000);
  });

  it('is learnt again after a sleep in which the monotonic clock stood still', async () => {
    const clock = new ServerClock();
    for (const now of [1_000_000, 9_000_000]) {
      const learning = clock.learn(answer(now, 10));
      await vi.advanceTimersByTimeAsync(10);
      await learning;
    }
    expect(clock.now()).toBe(9_000_005);
  });

  it.each([
    ['a minute later', 60_000, 60_000],
    ['a clock set back', -3_600_000, 0],
    ['a clock set forward by a day', 86_400_000, 0],
  ])('goes on without the network from a stored moment: %s', (_, gone, counted) => {
    const clock = new ServerClock();
    clock.resume({ serverAt: 5_000_000, deviceAt: Date.now() - gone });
    expect(clock.now()).toBe(5_000_000 + counted);
  });
});
