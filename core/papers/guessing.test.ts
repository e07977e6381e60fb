import { describe, expect, it } from 'vitest';
import { candidateKindOf } from '../kinds/candidateKindOf';
import type { Guessing, Sample } from '../kinds/contract';
import { kindNames, type KindName } from '../kinds/kindNames';
import { keyKindOf, keyKinds, type KeyKinds } from '../kinds/keyKinds';
import { sumMarks } from '../marks';
import { seededRandom } from '../random';
import { scorePart } from '../scoring/scorePart';
import { isDecided } from '../kinds/contract';
import { placeFor } from '../testing/scoreAlone';
import { guessingOf } from './guessing';

const modules = import.meta.glob<{ samples: Sample<unknown, unknown, unknown>[] }>('../kinds/*/samples.ts', {
  eager: true,
});
const kinds = keyKinds as unknown as KeyKinds;

describe('what a guess can cost', () => {
  const part = (kind: KindName, shown: object) => ({ parts: [{ kind, shown } as never] });
  const choice = (more: object) =>
    part('choice', { options: [], mode: 'several', choose: null, rule: 'each', costs: false, ...more });
  it.each<[string, readonly { parts: never[] }[], Guessing]>([
    ['one right option', [choice({ mode: 'one' })], 'free'],
    ['one right option with a penalty', [choice({ mode: 'one', costs: true })], 'costs'],
    ['several right options, each counted', [choice({})], 'within'],
    ['several right options, by decisions', [choice({ rule: 'decisions' })], 'within'],
    ['all or nothing, as many as one likes', [choice({ rule: 'all-or-nothing' })], 'within'],
    ['all or nothing of two that are to be chosen', [choice({ rule: 'all-or-nothing', choose: 2 })], 'free'],
    ['the worst of several', [choice({ mode: 'one' }), choice({}), part('number', {})], 'within'],
    ['no question', [], 'free'],
  ])('%s', (_, questions, expected) => expect(guessingOf(questions)).toBe(expected));

  it('is told by a rule wherever it costs something', () => {
    for (const name of kindNames)
      for (const { content, marks } of modules[`../kinds/${name}/samples.ts`]!.samples) {
        const key = keyKindOf(name);
        const shown = key.show(content.asked, key.arrange(content, seededRandom('a')), placeFor(marks));
        const kind = candidateKindOf(name);
        if (kind.guessing(shown) !== 'free') expect([name, kind.rule(shown)]).not.toEqual([name, null]);
      }
  });

  it('is never below nothing unless marks of others can be lost, whatever is answered', () => {
    const random = seededRandom('guesses');
    for (const name of kindNames)
      for (const sample of modules[`../kinds/${name}/samples.ts`]!.samples) {
        const { content, marks, evidence } = sample;
        const key = keyKindOf(name);
        const arrangement = key.arrange(content, seededRandom('a'));
        const place = placeFor(marks);
        const shown = key.show(content.asked, arrangement, place);
        const candidate = candidateKindOf(name);
        if (candidate.guessing(shown) === 'costs') continue;
        for (let n = 0; n < 200; n++) {
          const response = sample.randomResponse(random);
          if (candidate.progress(shown, response).state === 'empty') continue;
          const found = scorePart(kinds, {
            target: 'x/A',
            kind: name,
            content,
            response,
            place,
            arrangement,
            siblings: {},
            evidence: evidence ?? {},
          });
          expect(sumMarks(found.filter(isDecided).map((c) => c.hundredths))).toBeGreaterThanOrEqual(0);
        }
      }
  });
});
