import { pino } from 'pino';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { MovableClock } from '../clock';
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
    queue.handle('score', (subject) => void done.push(subject));
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
    queue.handle('score', broken);
    queue.add('score', 7);
    for (let turn = 0; turn < 8; turn++) {
      await queue.turn();
      clock.advance(60_000);
    }
    expect(broken).toHaveBeenCalledTimes(5);
    expect(queue.failed()).toMatchObject([
      { subject: 7, attempts: 5, doneAt: null, trouble: 'Error: the box is shut' },
    ]);
    expect(queue.open()).toBe(0);
  });

  it('that were given up can be run again, once; they are never taken to be done', async () => {
    let shut = true;
    queue.handle('score', () => {
      if (shut) throw new Error('the box is shut');
    });
    queue.add('score', 7);
    for (let turn = 0; turn < 6; turn++) {
      await queue.turn();
      clock.advance(60_000);
    }
    const { id } = queue.failed()[0]!;
    shut = false;
    expect([queue.runAgain(id), queue.runAgain(id)]).toEqual([true, false]);
    await queue.turn();
    expect([queue.failed(), db.select().from(jobs).get()!.state]).toEqual([[], 'done']);
  });

  it('of a kind that nobody knows are failed at once, for staff to see', async () => {
    queue.add('polish', 1);
    await queue.turn();
    expect(queue.failed()).toMatchObject([{ kind: 'polish', attempts: 1, doneAt: null }]);
  });

  it('one that fails does not hold up the others', async () => {
    const done: number[] = [];
    queue.handle('score', (subject) => {
      if (subject === 1) throw new Error('no');
      done.push(subject);
    });
    queue.add('score', 1);
    queue.add('score', 2);
    await queue.turn();
    expect(done).toEqual([2]);
  });

  it('does what belongs to every turn, and its turns never overlap', async () => {
    let [inside, most] = [0, 0];
    queue.handle('slow', async () => {
      most = Math.max(most, ++inside);
      await Promise.resolve();
      inside--;
    });
    const sweep = vi.fn();
    queue.everyTurn(sweep);
    for (let subject = 1; subject <= 4; subject++) queue.add('slow', subject);
    await Promise.all([queue.turn(), queue.turn(), queue.turn()]);
    expect([most, queue.open(), sweep.mock.calls.length]).toEqual([1, 0, 1]);
  });
});
