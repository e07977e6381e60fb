import { describe, expect, it } from 'vitest';
import { gaps } from '.';
import { samples } from './samples';

const { content } = samples[0]!;
const shown = gaps.show(content);
const marks = (filled: Record<string, string>) =>
  gaps.score({ content, response: { filled }, maximum: 300 }).hundredths;

describe('gaps', () => {
  it.each([
    ['both right', { a: 'kept', b: ' TENTH ' }, 300],
    ['one slip forgiven', { a: 're-sown', b: 'tenht' }, 150],
    ['two slips are too many', { b: 'tnht' }, 0],
    ['two words where one is asked', { a: 'kept', b: 'a tenth' }, 150],
  ])('%s', (_, filled, expected) => expect(marks(filled)).toBe(expected));

  it.each([
    [{}, 'empty', '2 gaps are empty'],
    [{ a: 'kept' }, 'part', 'Gap 2 is empty'],
    [{ a: 'kept', b: 'a tenth' }, 'part', 'Gap 2 takes one word only'],
    [{ a: 'kept', b: 'tenth' }, 'done', null],
  ])('%j is %s', (filled, state, missing) => {
    expect(gaps.progress(shown, { filled })).toEqual({ state, missing });
  });

  it('refuses what is not on the list or not a gap', () => {
    expect(gaps.misfit(shown, { filled: { a: 'lost' } })).toBe('not one of the list');
    expect(gaps.misfit(shown, { filled: { z: 'x' } })).toBe('no such gap');
  });

  it('reads back as text', () => {
    expect(gaps.asText(shown, { filled: { a: 'kept' } })).toBe(
      'Lot K-2 is [kept] because no more than a [ ] are empty.',
    );
  });
});
