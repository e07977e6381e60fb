import { describe, expect, it } from 'vitest';
import { creditsOf, hundredthsOf, placeFor } from '../../testing/scoreAlone';
import { choice } from './candidate';
import { choiceKey } from './key';
import { samples } from './samples';

const one = samples[0]!.content;
const two = samples[1]!.content;
const by = (rule: 'decisions' | 'all-or-nothing') => ({ ...two, asked: { ...two.asked, rule } });
const costing = (over: number, under: number) => ({
  ...one,
  asked: { ...one.asked, penalty: { over, under } },
});
const shown = choiceKey.show(
  two.asked,
  two.asked.options.map((o) => o.key),
  placeFor(200),
);

describe('choice', () => {
  it.each([
    ['one right', one, ['holly'], 300, 300],
    ['one wrong loses 1/3 of 3 marks', one, ['kale'], 300, -100],
    // 1/3 of 1 mark is 33.33… hundredths; of 1.50 exactly 50; 1/7 of 1 mark 14.29, 1/8 of 1 mark 12.5, away from zero
    ['a third of one mark', one, ['kale'], 100, -33],
    ['a third of 1.50', one, ['kale'], 150, -50],
    ['a seventh of one mark', costing(1, 7), ['kale'], 100, -14],
    ['an eighth of one mark', costing(1, 8), ['kale'], 100, -13],
    ['two right', two, ['kale', 'rush'], 200, 200],
    ['each: one right and one wrong cancel, 1/2 − 1/2', two, ['kale', 'holly'], 200, 0],
    ['each: never below nothing', two, ['holly', 'thrift'], 200, 0],
    ['more than the page allows earns nothing', two, ['kale', 'rush', 'holly'], 200, 0],
    ['decisions: 3 of 4 are right', by('decisions'), ['kale'], 200, 150],
    ['all or nothing', by('all-or-nothing'), ['kale'], 200, 0],
    ['all or nothing, all', by('all-or-nothing'), ['rush', 'kale'], 200, 200],
  ])('%s', (_, content, chosen, marks, expected) => {
    expect(hundredthsOf(choiceKey, { content, response: { chosen }, marks })).toBe(expected);
  });

  it('gives its verdict by the share before rounding', () => {
    // 1/2 of one hundredth is rounded up to all of it; it is partly right all the same.
    const [credit] = creditsOf(choiceKey, { content: two, response: { chosen: ['kale'] }, marks: 1 });
    expect(credit).toMatchObject({ hundredths: 1, of: 1, verdict: 'partly' });
  });

  it('counts for the candidate', () => {
    const progress = (chosen: string[]) => choice.progress(shown, { chosen });
    expect(progress([])).toEqual({
      state: 'empty',
      missing: { code: 'choice.choose', values: { count: 2 } },
    });
    expect(progress(['kale']).missing).toEqual({ code: 'choice.chooseMore', values: { count: 1 } });
    expect(progress(['kale', 'holly'])).toEqual({ state: 'done', missing: null });
  });

  it.each([
    [['kale', 'holly', 'rush'], 'choice.tooMany'],
    [['kale', 'kale'], 'choice.twice'],
    [['moss'], 'choice.noOption'],
    [['kale'], undefined],
  ])('sees that %j does not fit', (chosen, code) => {
    expect(choice.misfit(shown, { chosen })?.code).toBe(code);
  });

  it('says when guessing can cost', () => {
    const dealt = choiceKey.show(one.asked, ['kale', 'holly', 'rush', 'thrift'], placeFor(100));
    expect([choice.guessing(dealt), choice.guessing({ ...dealt, costs: false })]).toEqual(['costs', 'free']);
  });

  it.each([
    [{ right: ['moss'] }, 'choice.rightMissing'],
    [{ right: ['kale', 'kale'] }, 'choice.rightMissing'],
    [{ right: ['kale', 'rush', 'holly'] }, 'choice.chooseTooFew'],
  ])('a draft with the key %j has an issue', (key, code) => {
    const codes = choiceKey.check({ asked: two.asked, key }, placeFor(200)).map((i) => i.message.code);
    expect(codes).toContain(code);
  });
});
