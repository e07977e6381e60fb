import { describe, expect, it } from 'vitest';
import { choice } from '.';
import { samples } from './samples';

const one = samples[0]!.content;
const two = samples[1]!.content;

describe('choice', () => {
  it.each([
    ['one right', one, ['holly'], 300, 300],
    ['one wrong loses 1/3 of 3 marks', one, ['kale'], 300, -100],
    ['one left open', one, [], 300, 0],
    ['two right', two, ['kale', 'rush'], 200, 200],
    ['each: one right and one wrong cancel, 1/2 − 1/2', two, ['kale', 'holly'], 200, 0],
    ['each: never below nothing', two, ['holly', 'thrift'], 200, 0],
    ['decisions: 3 of 4 are right', { ...two, rule: 'decisions' as const }, ['kale'], 200, 150],
    ['all or nothing', { ...two, rule: 'all-or-nothing' as const }, ['kale'], 200, 0],
    ['all or nothing, all', { ...two, rule: 'all-or-nothing' as const }, ['rush', 'kale'], 200, 200],
  ])('%s', (_, content, chosen, maximum, expected) => {
    expect(choice.score({ content, response: { chosen }, maximum }).hundredths).toBe(expected);
  });

  it('counts for the candidate', () => {
    const shown = choice.show(two);
    expect(choice.progress(shown, { chosen: [] })).toEqual({ state: 'empty', missing: 'Choose 2' });
    expect(choice.progress(shown, { chosen: ['kale'] })).toEqual({ state: 'part', missing: 'Choose 1 more' });
    expect(choice.progress(shown, { chosen: ['kale', 'holly'] }).state).toBe('done');
  });

  it.each([
    [['kale', 'holly', 'rush'], 'more than 2 options chosen'],
    [['kale', 'kale'], 'an option is chosen twice'],
    [['moss'], 'no such option'],
    [['kale'], null],
  ])('sees that %j does not fit', (chosen, misfit) => {
    expect(choice.misfit(choice.show(two), { chosen })).toBe(misfit);
  });

  it('says when guessing can cost', () => {
    expect(choice.wrongCosts(choice.show(one))).toBe(true);
    expect(choice.wrongCosts(choice.show(two))).toBe(false);
  });
});
