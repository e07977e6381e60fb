import { expect, it } from 'vitest';
import { FairQueue } from './fairQueue';

/** Work that ends when it is told to; `begun` tells in which order it was begun. */
function track() {
  const begun: string[] = [];
  const ends = new Map<string, () => void>();
  const work = (name: string) => () => {
    begun.push(name);
    return new Promise<string>((end) => ends.set(name, () => end(name)));
  };
  const end = async (name: string) => {
    ends.get(name)!();
    await new Promise((settled) => setImmediate(settled));
  };
  return { begun, work, end };
}

it('gives everybody their turn, however much one has asked for', async () => {
  const queue = new FairQueue(1);
  const { begun, work, end } = track();
  for (const n of [1, 2, 3]) void queue.add('many', work(`many ${n}`));
  void queue.add('ada', work('ada'));
  void queue.add('bram', work('bram'));
  expect([queue.before('many'), queue.before('ada'), queue.before('bram')]).toEqual([0, 1, 2]);
  expect(queue.waiting).toBe(4);
  for (const name of ['many 1', 'many 2', 'ada', 'bram', 'many 3']) await end(name);
  expect(begun).toEqual(['many 1', 'many 2', 'ada', 'bram', 'many 3']);
  expect([queue.waiting, queue.before('ada')]).toEqual([0, 0]);
});

it('does as much at once as it has slots, and goes on after work that fails', async () => {
  const queue = new FairQueue(2);
  const { begun, work, end } = track();
  const failed = queue.add('a', () => Promise.reject(new Error('broken')));
  void queue.add('b', work('b'));
  void queue.add('c', work('c'));
  await expect(failed).rejects.toThrow('broken');
  await new Promise((settled) => setImmediate(settled));
  expect(begun).toEqual(['b', 'c']);
  await end('b');
  await end('c');
});

it('runs alone what is to run alone: after what runs already, and before what comes behind it', async () => {
  const queue = new FairQueue(2);
  const { begun, work, end } = track();
  void queue.add('a', work('a'));
  void queue.add('b', work('alone'), { alone: true });
  void queue.add('c', work('c'));
  expect(begun).toEqual(['a']);
  await end('a');
  expect(begun).toEqual(['a', 'alone']);
  expect(queue.activity).toEqual({ running: 1, starts: 2 });
  await end('alone');
  expect(begun).toEqual(['a', 'alone', 'c']);
});
