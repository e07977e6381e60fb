import { expect, it } from 'vitest';
import { FairQueue } from './fairQueue';

it('gives turns by owner, and to each owner in order', () => {
  const queue = new FairQueue<string>();
  for (const one of ['a1', 'a2', 'a3', 'b1', 'b2', 'c1']) queue.add(one[0]!, one);
  const first = [queue.next(), queue.next()];
  queue.add('d', 'd1');
  const rest = Array.from({ length: queue.length }, () => queue.next());
  expect([...first, ...rest, queue.next()]).toEqual(['a1', 'b1', 'c1', 'a2', 'b2', 'd1', 'a3', undefined]);
});

it('gives up everything that waits when it is cleared', () => {
  const queue = new FairQueue<number>();
  queue.add('a', 1);
  queue.add('b', 2);
  expect([queue.clear(), queue.length, queue.next()]).toEqual([[1, 2], 0, undefined]);
});
