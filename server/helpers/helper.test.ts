import { afterEach, expect, it } from 'vitest';
import { Helper, TookTooLong } from './helper';

const script = new URL('../testing/workHelper.ts', import.meta.url);
let helper: Helper;
afterEach(() => helper.close());

it('ends a task at its limit of processor time, and goes on with the next', async () => {
  helper = new Helper({ script, limitMs: 60_000, limitProcessorMs: 300 });
  await expect(helper.ask('spin', null)).rejects.toBeInstanceOf(TookTooLong);
  expect(await helper.ask('note', 'next')).toEqual(['next']);
});

it('does the tasks of several owners in turns', async () => {
  helper = new Helper({ script, limitMs: 60_000 });
  const all = ['a1', 'a2', 'a3', 'b1'].map((what) => helper.ask<string[]>('note', what, what[0]));
  await Promise.all(all);
  // The first is begun at once; then it is the other owner's turn.
  expect(await all[2]).toEqual(['a1', 'b1', 'a2', 'a3']);
});
