import { describe, expect, it } from 'vitest';
import { Gate } from './limits';

describe('a gate before costly work', () => {
  it('limits how many run and how many wait in order, and refuses the rest', async () => {
    const gate = new Gate(2, 1);
    const ends: (() => void)[] = [];
    let [running, most] = [0, 0];
    const work = async () => {
      most = Math.max(most, ++running);
      await new Promise<void>((end) => ends.push(end));
      running -= 1;
    };
    const three = [gate.run(work), gate.run(work), gate.run(work)];
    await expect(gate.run(work)).rejects.toMatchObject({ status: 503, code: 'busy' });
    ends.shift()!();
    await three[0];
    expect([running, ends.length]).toEqual([2, 2]);
    ends.splice(0).forEach((end) => end());
    await Promise.all(three);
    expect(most).toBe(2);
    // A piece that fails gives its place up too.
    await expect(gate.run(() => Promise.reject(new Error('no')))).rejects.toThrow('no');
    expect(await gate.run(() => Promise.resolve(7))).toBe(7);
  });
});
