import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { LoadMeter } from './loadMeter';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

describe('room for work that can wait', () => {
  /** How busy the thread is meanwhile, as a share. */
  let utilization = 0;
  const usedSince = () => ({ utilization, idle: 0, active: 0 });
  const waitingFor = async (room: LoadMeter, ms: number) => {
    const from = Date.now();
    const waiting = room.wait(ms).then(() => Date.now() - from);
    await vi.advanceTimersByTimeAsync(60_000);
    return waiting;
  };

  it('is waited for while the thread is busy, and no longer than allowed', async () => {
    const room = new LoadMeter(usedSince);
    room.start();
    utilization = 0.9;
    await vi.advanceTimersByTimeAsync(300);
    expect(await waitingFor(room, 2000)).toBe(2000);
    // Free after one second.
    setTimeout(() => (utilization = 0.5), 1000);
    expect(await waitingFor(room, 2000)).toBe(1250);
    expect(await waitingFor(room, 2000)).toBe(0);
  });

  it('is always there before the queue is started, and once it is stopped', async () => {
    utilization = 1;
    const room = new LoadMeter(usedSince);
    expect(await waitingFor(room, 2000)).toBe(0);
    room.start();
    await vi.advanceTimersByTimeAsync(300);
    room.stop();
    expect(await waitingFor(room, 2000)).toBe(0);
  });
});
