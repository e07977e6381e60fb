import { describe, expect, it } from 'vitest';
import { plainDocument } from '../documents/document';
import { withParsed } from '../documents/withParsed';
import { say } from '../messages/words';
import { sumMarks } from '../marks';
import { seededRandom } from '../random';
import { COMPONENT_KEY } from '../scoring/components';
import { scorePart, type PartToScore } from '../scoring/scorePart';
import { placeFor } from '../testing/scoreAlone';
import { isOf, parsed } from '../validation/shapes';
import { issuesOf, parseContent, publishDraft } from './authoring';
import { candidateKindOf } from './candidateKindOf';
import { kindNames, type KindName } from './kindNames';
import { isDecided, type Sample } from './contract';
import { keyKindOf, keyKinds, type KeyKinds } from './keyKinds';
import { readResponse } from './readResponse';
import { storeResponse } from './stored';

const modules = import.meta.glob<{ samples: Sample<unknown, unknown, unknown>[] }>('./*/samples.ts', {
  eager: true,
});
const samplesOf = (name: KindName) => modules[`./${name}/samples.ts`]?.samples ?? [];
const kinds = keyKinds as unknown as KeyKinds;
const throughJson = (value: unknown): unknown => JSON.parse(JSON.stringify(value));

const asPlainText = (text: string) => ({ value: plainDocument(text), issues: [] });
/** No formula is read here: those of the samples are trees already. */
const parsers = { markdown: asPlainText, formula: () => ({ value: null, issues: [] }) };

describe.each(kindNames)('kind %s', (name) => {
  const candidate = candidateKindOf(name);
  const key = keyKindOf(name);

  it('is named as its folder on both halves, has samples, and a blank draft whose issues have paths', () => {
    expect([candidate.name, key.name]).toEqual([name, name]);
    expect(Object.keys(key.events)).toEqual(candidate.events);
    expect(samplesOf(name).length).toBeGreaterThan(0);
    const { value } = withParsed(key.blank(), key.documents, asPlainText);
    const issues = issuesOf(key, value, placeFor(100));
    for (const issue of issues) expect(issue.path.length).toBeGreaterThan(0);
  });

  describe.each(samplesOf(name))('$title', (sample) => {
    const { content, marks, best, partly, wrong, misfit, secrets, evidence, failing } = sample;
    const place = placeFor(marks);
    const arrangements = ['a', 'b', 'c'].map((seed) => key.arrange(content, seededRandom(seed)));
    const [arrangement] = arrangements;
    const shown = key.show(content.asked, arrangement, place);
    const components = key.components(content, marks);
    const most = sumMarks(components.filter((c) => c.by === 'machine').map((c) => c.of));
    const score = (response: unknown, arranged = arrangement, found = evidence ?? {}) => {
      const part: PartToScore = {
        target: 'x/A',
        kind: name,
        content,
        response,
        place,
        arrangement: arranged,
        siblings: {},
        evidence: found,
      };
      const credits = scorePart(kinds, part).filter(isDecided);
      for (const { reasons } of credits) for (const one of reasons) expect(say(one)).not.toBe(one.code);
      return sumMarks(credits.map((c) => c.hundredths));
    };

    it('parses back to itself through JSON', () => {
      expect(parseContent(key, throughJson(content))).toEqual(content);
      expect(readResponse(name, throughJson(storeResponse(name, best)))).toEqual({ response: best });
      for (const one of arrangements) expect(parsed(key.arrangement, throughJson(one))).toEqual(one);
    });

    it('refuses foreign content and responses', () => {
      for (const foreign of [null, 7, 'x', [], { surprise: true }]) {
        expect(isOf(key.asked, foreign)).toBe(false);
        expect(isOf(key.key, foreign)).toBe(false);
        expect('problem' in readResponse(name, { version: 1, response: foreign })).toBe(true);
      }
    });

    it('can be published, and cannot with another number of marks or without a key', () => {
      expect(publishDraft(key, content, place, parsers)).toEqual({ content });
      expect(publishDraft(key, { asked: content.asked, key: {} }, place, parsers)).toHaveProperty('issues');
    });

    it('starts empty, is done by its best answer however it is arranged, and both belong', () => {
      for (const one of arrangements) {
        const dealt = key.show(content.asked, one, place);
        const empty = candidate.empty(dealt);
        expect(candidate.progress(dealt, empty).state).toBe('empty');
        expect(say(candidate.progress(dealt, empty).missing!)).toMatch(/^[A-Z0-9].* /);
        expect(candidate.progress(dealt, best)).toEqual({ state: 'done', missing: null });
        for (const response of [empty, best]) expect(candidate.misfit(dealt, response)).toBeNull();
        expect(candidate.describe(dealt, empty, say).text).toBe('');
        expect(candidate.describe(dealt, best, say).text).not.toBe('');
      }
    });

    it('has a misfit that is refused in words, wherever one can be', () => {
      if (misfit === null) return expect(candidate.misfit(shown, best)).toBeNull();
      const why = candidate.misfit(shown, misfit);
      expect(why).not.toBeNull();
      expect(say(why!)).not.toBe(why!.code);
    });

    it('costs what breaks a limit alone: a misfit is scored within its bounds, without what is not there', () => {
      if (misfit === null) return;
      const fitted = candidate.fitting(shown, misfit);
      expect(readResponse(name, storeResponse(name, fitted))).toEqual({ response: fitted });
      expect(candidate.fitting(shown, best)).toEqual(best);
      if (candidate.progress(shown, fitted).state === 'empty') return;
      expect(Math.abs(score(fitted))).toBeLessThanOrEqual(most);
      if (most > 0) expect(score(fitted)).toBeLessThan(most);
      expect(candidate.describe(shown, fitted, say).text).not.toBe('');
    });

    it('has components that add up, each under its own key, and a criterion exactly where people decide', () => {
      expect(sumMarks(components.map((c) => c.of))).toBe(marks);
      expect(new Set(components.map((c) => c.key)).size).toBe(components.length);
      for (const { by, criterion } of components) expect(criterion !== undefined).toBe(by === 'people');
      for (const component of components) expect(component.key).toMatch(COMPONENT_KEY);
      const people = components.some((c) => c.by === 'people');
      expect(key.markScheme(content) !== null).toBe(people);
    });

    it('scores its best with the maximum however it is arranged, and others with less', () => {
      for (const one of arrangements) expect(score(best, one)).toBe(most);
      if (most === 0) return;
      if (partly) {
        expect(score(partly)).toBeLessThan(most);
        expect(score(partly)).toBeGreaterThan(0);
      }
      // Where runs decide, the same answer is wrong by what they find.
      if (failing) expect(score(best, arrangement, failing)).toBeLessThanOrEqual(0);
      else expect(score(wrong)).toBeLessThanOrEqual(0);
    });

    it('stays within bounds for 1,000 seeded responses, all of which belong and read back', () => {
      const random = seededRandom(`${name} responses`);
      for (let n = 0; n < 1000; n++) {
        const response = sample.randomResponse(random);
        expect(candidate.misfit(shown, response)).toBeNull();
        expect(readResponse(name, storeResponse(name, response))).toEqual({ response });
        if (candidate.progress(shown, response).state === 'empty') continue;
        expect(Math.abs(score(response))).toBeLessThanOrEqual(most);
        expect(candidate.describe(shown, response, say).text).not.toBe('');
      }
    });

    it('shows a candidate nothing of the key', () => {
      expect(secrets.length).toBeGreaterThan(0);
      const inKey = JSON.stringify(content.key);
      for (const one of arrangements) {
        const seen = JSON.stringify(key.show(content.asked, one, place));
        for (const secret of secrets) {
          expect(inKey).toContain(secret);
          expect(seen).not.toContain(secret);
        }
      }
    });

    it('arranges the same way from the same seed, and loses nothing', () => {
      expect(key.arrange(content, seededRandom('a'))).toEqual(arrangement);
      const size = (one: unknown) => (Array.isArray(one) ? (one as string[]).toSorted().join() : one);
      for (const one of arrangements) expect(size(one)).toEqual(size(arrangement));
      expect(candidate.misfit(shown, best)).toBeNull();
    });

    it('has a right response that earns all the machine gives, where it has one', () => {
      const right = key.rightResponse(content, arrangement, place);
      if (right === null) return;
      expect(candidate.misfit(shown, right)).toBeNull();
      expect(score(right)).toBe(most);
    });

    it('tells facts of known components, and none that is wrong of its best answer', () => {
      const facts = key.facts({ content, response: best, place, siblings: {} });
      expect(facts.length).toBeGreaterThan(0);
      const known = key.components(content, marks).map((component) => component.key);
      for (const fact of facts) {
        expect(known).toContain(fact.component);
        expect(fact.right).not.toBe(false);
        expect(fact.answer).not.toBe('');
      }
      expect(key.facts({ content, response: candidate.empty(shown), place, siblings: {} })).toEqual([]);
    });

    it('reads no response of a newer version', () => {
      const stored = { ...storeResponse(name, best), version: candidate.responseVersion + 1 };
      expect(readResponse(name, stored)).toMatchObject({ problem: { code: 'stored.newerResponse' } });
    });
  });
});
