import * as v from 'valibot';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../random';
import type { Sample } from './contract';
import { kindNames, kindOf, type KindName } from './registry';

const modules = import.meta.glob<{ samples: Sample<unknown, unknown>[] }>('./*/samples.ts', { eager: true });
const samplesOf = (name: KindName) => modules[`./${name}/samples.ts`]?.samples ?? [];

describe.each(kindNames)('kind %s', (name) => {
  const kind = kindOf(name);
  const samples = samplesOf(name);

  it('is named as its folder and has samples', () => {
    expect(kind.name).toBe(name);
    expect(samples.length).toBeGreaterThan(0);
  });

  describe.each(samples)('$title', ({ content, maximum, best, partly, secrets, outcomes }) => {
    const shown = kind.show(content);
    const score = (response: unknown) => kind.score({ content, response, maximum, outcomes });

    it('parses back to itself through JSON', () => {
      expect(v.parse(kind.content, JSON.parse(JSON.stringify(content)))).toEqual(content);
      expect(v.parse(kind.response, JSON.parse(JSON.stringify(best)))).toEqual(best);
    });

    it('refuses foreign content and responses', () => {
      for (const foreign of [null, 7, 'x', [], { surprise: true }]) {
        expect(v.safeParse(kind.content, foreign).success).toBe(false);
        expect(v.safeParse(kind.response, foreign).success).toBe(false);
      }
    });

    it('starts empty, is done by its best answer, and both fit', () => {
      const empty = kind.empty(shown);
      expect(kind.progress(shown, empty).state).toBe('empty');
      expect(kind.progress(shown, empty).missing).toBeTruthy();
      expect(kind.progress(shown, best)).toEqual({ state: 'done', missing: null });
      expect(kind.misfit(shown, empty)).toBeNull();
      expect(kind.misfit(shown, best)).toBeNull();
      expect(kind.asText(shown, empty)).toBe('');
      expect(kind.asText(shown, best)).not.toBe('');
    });

    it('scores the best with the maximum, nothing with 0, and stays in bounds', () => {
      expect(score(kind.empty(shown))).toMatchObject({ hundredths: 0, verdict: 'unanswered' });
      if (kind.judge === 'people') {
        const levels = kind
          .rubric(content)!
          .criteria.map((c) => Math.max(...c.levels.map((l) => l.hundredths)));
        expect(levels.reduce((a, b) => a + b, 0)).toBe(maximum);
      } else expect(score(best)).toMatchObject({ hundredths: maximum, verdict: 'right' });
      if (partly) {
        expect(score(partly).hundredths).toBeLessThan(maximum);
        expect(score(partly).hundredths).toBeGreaterThanOrEqual(-maximum);
      }
    });

    it('shows a candidate nothing of the key, however it is arranged', () => {
      const seen = JSON.stringify(kind.arrange(shown, seededRandom('any')));
      for (const secret of secrets) expect(seen).not.toContain(secret);
    });

    it('arranges the same way from the same seed', () => {
      expect(kind.arrange(shown, seededRandom('a'))).toEqual(kind.arrange(shown, seededRandom('a')));
    });

    it('has runs exactly where cases judge, and a rubric exactly where people do', () => {
      expect(kind.runs(content, best) !== null).toBe(kind.judge === 'cases');
      expect(kind.rubric(content) !== null).toBe(kind.judge === 'people');
    });
  });
});
