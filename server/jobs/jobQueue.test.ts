import { pino } from 'pino';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { MovableClock } from '../machine/clock';
import { GroupCommit } from '../db/groupCommit';
import { openDatabase, type Db } from '../db/open';
import { jobs } from '../db/schema';
import { JobQueue } from './jobQueue';

let db: Db;
let clock: MovableClock;
let queue: JobQueue;
beforeEach(() => {
  db = openDatabase(':memory:');
  clock = new MovableClock();
  queue = new JobQueue(db, new GroupCommit(db), clock, pino({ level: 'silent' }));
});
afterEach(() => db.$client.close());

describe('jobs', () => {
  it('are done in the order in which they fall due, and once', async () => {
    const done: number[] = [];
    queue.handle('score', 'scoring', (subject) => void done.push(subject));
    queue.add('score', 2, clock.now() + 5000);
    queue.add('score', 1);
    await queue.turn();
    expect([done, queue.open()]).toEqual([[1], 1]);
    clock.advance(5000);
    await queue.turn();
    await queue.turn();
    expect([done, queue.open()]).toEqual([[1, 2], 0]);
  });

  it('are tried again with growing waits, and given up with what went wrong', async () => {
    const broken = vi.fn(() => {
      throw new Error('the box is shut');
    });
    queue.handle('score', 'scoring', broken);
    queue.add('score', 7);
    for (let turn = 0; turn < 8; turn++) {
      await queue.turn();
      clock.advance(60_000);
    }
    expect(broken).toHaveBeenCalledTimes(5);
    expect(queue.failed()).toMatchObject([{ about: '7', attempts: 5, trouble: 'Error: the box is shut' }]);
    expect(queue.open()).toBe(0);
  });

  it('that were given up can be run again, once; they are never taken to be done', async () => {
    let shut = true;
    const handler = () => {
      if (shut) throw new Error('the box is shut');
    };
    queue.handle('score', 'scoring', handler, (sitting) => `script of ${sitting}`);
    queue.add('score', 7);
    for (let turn = 0; turn < 6; turn++) {
      await queue.turn();
      clock.advance(60_000);
    }
    const { id, about } = queue.failed()[0]!;
    expect(about).toBe('script of 7');
    shut = false;
    expect([queue.runAgain(id), queue.runAgain(id)]).toEqual([true, false]);
    await queue.turn();
    expect([queue.failed(), db.select().from(jobs).get()!.state]).toEqual([[], 'done']);
  });

  it('of a kind that nobody knows are failed at once, for staff to see', async () => {
    queue.add('polish', 1);
    await queue.turn();
    expect(queue.failed()).toMatchObject([{ kind: 'polish', about: '1', attempts: 1 }]);
    expect(queue.countFailed()).toBe(1);
  });

  it('of scripts go on beside each other: one that takes long keeps nobody waiting, and none is done twice at once', async () => {
    const begun: number[] = [];
    const ends: (() => void)[] = [];
    queue.handle('score', 'scoring', (subject) => {
      begun.push(subject);
      return subject === 1 ? new Promise<void>((end) => ends.push(end)) : undefined;
    });
    for (const subject of [1, 1, 2, 3]) queue.add('score', subject);
    queue.start();
    await vi.waitFor(() => expect(begun).toEqual([1, 2, 3]), 20_000);
    ends[0]!();
    await vi.waitFor(() => expect(begun).toEqual([1, 2, 3, 1]), 20_000);
    ends[1]!();
    await queue.stop();
    expect(queue.open()).toBe(0);
  });

  it('that a stop breaks off wait as before, without a try less', async () => {
    let begun = false;
    queue.handle('score', 'scoring', async () => {
      begun = true;
      await stopped;
      throw new Error('the sandbox is closed');
    });
    let goOn = () => {};
    const stopped = new Promise<void>((resolve) => (goOn = resolve));
    queue.add('score', 7);
    const turn = queue.turn();
    await vi.waitFor(() => expect(begun).toBe(true), 20_000);
    const stop = queue.stop();
    goOn();
    await Promise.all([turn, stop]);
    expect(db.select().from(jobs).get()).toMatchObject({ state: 'waiting', attempts: 0, trouble: null });
  });

  it('one that fails does not hold up the others', async () => {
    const done: number[] = [];
    queue.handle('score', 'scoring', (subject) => {
      if (subject === 1) throw new Error('no');
      done.push(subject);
    });
    queue.add('score', 1);
    queue.add('score', 2);
    await queue.turn();
    expect(done).toEqual([2]);
  });

  it('of one lane wait for no other, and a stop waits for what is being done alone', async () => {
    const done: string[] = [];
    let answer = () => {};
    queue.handle('letter', 'letters', async (subject) => {
      done.push(`letter ${subject} begun`);
      await new Promise<void>((go) => (answer = go));
      done.push(`letter ${subject}`);
    });
    queue.handle('score', 'scoring', (subject) => void done.push(`score ${subject}`));
    queue.sweep(() => void done.push('sweep'));
    for (const subject of [1, 2]) queue.add('letter', subject);
    queue.start();
    await vi.waitFor(() => expect(done).toContain('letter 1 begun'));
    queue.add('score', 7);
    await vi.waitFor(() => expect(done).toContain('score 7'), { timeout: 5000 });
    // The sweep goes on beside a letter that hangs.
    const sweeps = () => done.filter((one) => one === 'sweep').length;
    const before = sweeps();
    await vi.waitFor(() => expect(sweeps()).toBeGreaterThan(before), { timeout: 5000 });
    const stopped = queue.stop();
    answer();
    await stopped;
    expect(done.filter((one) => one.startsWith('letter'))).toEqual(['letter 1 begun', 'letter 1']);
    expect(queue.open()).toBe(1);
  });

  it('does what belongs to every turn, and its turns never overlap', async () => {
    let [inside, most] = [0, 0];
    queue.handle('slow', 'scoring', async () => {
      most = Math.max(most, ++inside);
      await Promise.resolve();
      inside--;
    });
    const sweep = vi.fn();
    queue.sweep(sweep);
    for (let subject = 1; subject <= 4; subject++) queue.add('slow', subject);
    await Promise.all([queue.turn(), queue.turn(), queue.turn()]);
    expect([most, queue.open()]).toEqual([1, 0]);
    expect(sweep).toHaveBeenCalled();
  });
});
