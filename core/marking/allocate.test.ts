import { describe, expect, it } from 'vitest';
import { allocate, type Assigned } from './allocate';

const ids = (count: number, from = 1) => Array.from({ length: count }, (_, i) => from + i);
const loads = (added: readonly Assigned[], assessors: readonly number[]) =>
  assessors.map((id) => added.filter((one) => one.assessor === id).length);
const plain = { kept: [], seed: 'november/incident-note' };

describe('allocation', () => {
  it('shares out evenly, marks the stated share twice, and never both by one person', () => {
    const assessors = [7, 8, 9];
    const { added, open } = allocate({ ...plain, scripts: ids(60), assessors, doublePercent: 25 });
    expect(open).toEqual([]);
    expect(added.filter((one) => one.turn === 'first')).toHaveLength(60);
    const second = added.filter((one) => one.turn === 'second');
    expect(second).toHaveLength(15);
    // 75 marks for three.
    expect(loads(added, assessors)).toEqual([25, 25, 25]);
    for (const { script, assessor } of second)
      expect(added.find((one) => one.script === script && one.turn === 'first')!.assessor).not.toBe(assessor);
  });

  it('is the same for the same seed, in whatever order things are named, and another for another', () => {
    const wanted = { ...plain, scripts: ids(20), assessors: [1, 2], doublePercent: 50 };
    const found = allocate(wanted);
    expect(allocate({ ...wanted, scripts: ids(20).reverse(), assessors: [2, 1] })).toEqual(found);
    expect(allocate({ ...wanted, seed: 'december' })).not.toEqual(found);
  });

  it('keeps marking that was started, and shares out what an absent assessor had', () => {
    const before = allocate({ ...plain, scripts: ids(30), assessors: [1, 2, 3], doublePercent: 100 }).added;
    const kept = before.filter((one) => one.assessor !== 3);
    const { added, open } = allocate({
      ...plain,
      scripts: ids(30),
      assessors: [1, 2],
      doublePercent: 100,
      kept,
    });
    expect(open).toEqual([]);
    expect([...kept, ...added]).toHaveLength(60);
    expect(loads([...kept, ...added], [1, 2])).toEqual([30, 30]);
    const pairs = new Set([...kept, ...added].map((one) => `${one.script} ${one.assessor}`));
    expect(pairs.size).toBe(60);
  });

  it('takes scripts as they come, and holds the share and the balance of all', () => {
    let all: readonly Assigned[] = [];
    let known = 0;
    for (const count of [3, 7, 1, 29]) {
      const before = {
        loads: Object.fromEntries([1, 2].map((id, i) => [id, loads(all, [1, 2])[i]!])),
        scripts: known,
        doubled: all.filter((one) => one.turn === 'second').length,
      };
      const scripts = ids(count, known + 1);
      const { added } = allocate({ ...plain, scripts, assessors: [1, 2], doublePercent: 30, before });
      [all, known] = [[...all, ...added], known + count];
    }
    // 30 % of 40, and 52 marks for two.
    expect(all.filter((one) => one.turn === 'second')).toHaveLength(12);
    expect(loads(all, [1, 2])).toEqual([26, 26]);
  });

  it('gives nobody a script that they are barred from, and leaves it open where nobody else is', () => {
    const barred = ids(6).map((script) => ({ script, assessor: 1 }));
    const { added } = allocate({ ...plain, scripts: ids(12), assessors: [1, 2], doublePercent: 0, barred });
    expect(added.filter(({ script, assessor }) => script <= 6 && assessor === 1)).toEqual([]);
    expect(added).toHaveLength(12);
    const alone = allocate({ ...plain, scripts: ids(2), assessors: [1], doublePercent: 0, barred });
    expect(alone.open).toHaveLength(2);
  });

  it('leaves open what nobody can take', () => {
    const one = allocate({ ...plain, scripts: ids(2), assessors: [4], doublePercent: 100 });
    expect(loads(one.added, [4])).toEqual([2]);
    expect(one.open.map(({ turn }) => turn)).toEqual(['second', 'second']);
    expect(allocate({ ...plain, scripts: [1], assessors: [], doublePercent: 0 }).open).toEqual([
      { script: 1, turn: 'first' },
    ]);
    expect(allocate({ ...plain, scripts: [], assessors: [1], doublePercent: 0 })).toEqual({
      added: [],
      open: [],
    });
    for (const doublePercent of [-1, 101, NaN])
      expect(() => allocate({ ...plain, scripts: [1], assessors: [1], doublePercent })).toThrow(RangeError);
  });
});
