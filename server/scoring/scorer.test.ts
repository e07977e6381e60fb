import { afterAll, describe, expect, it } from 'vitest';
import type { PartToScore } from '../../core/scoring/scorePart';
import { placeFor } from '../../core/testing/scoreAlone';
import { Scorer } from './scorer';

const scorer = new Scorer(new URL('../testing/brokenKinds.ts', import.meta.url));
afterAll(() => scorer.close());

const part = (kind: string, n = 0): PartToScore => ({
  target: `${kind}-${n}/A`,
  kind,
  content: { asked: {}, key: {} },
  response: {},
  place: placeFor(100),
  arrangement: null,
  siblings: {},
  evidence: {},
});
const well = {
  credits: [{ component: 'whole', hundredths: 100, of: 100, verdict: 'right', reasons: [] }],
  undecided: [],
};

describe('the scorer', () => {
  it('loses the score of a broken part only: one that throws, one that hangs, one that gives nonsense', async () => {
    const parts = ['well', 'throws', 'well', 'hangs', 'well', 'nonsense', 'well'].map(part);
    const found = await scorer.score(parts);
    expect([...found.keys()]).toEqual(parts.map((one) => one.target));
    expect([...found.values()].map((one) => ('failure' in one ? one.failure : one))).toEqual([
      well,
      'threw',
      well,
      'took too long',
      well,
      'nonsense',
      well,
    ]);
  });

  it('outlives a part that takes all memory', async () => {
    const found = await scorer.score([part('grows'), part('well')]);
    expect(found.get('grows-0/A')).toMatchObject({ failure: 'threw' });
    expect(found.get('well-0/A')).toEqual(well);
  });

  it('scores scripts that come at once one after the other, each with its own', async () => {
    const scripts = [1, 2, 3].map((n) => scorer.score([part('well', n), part('throws', n)]));
    for (const [i, found] of (await Promise.all(scripts)).entries())
      expect([...found.keys()]).toEqual([`well-${i + 1}/A`, `throws-${i + 1}/A`]);
  });
});
