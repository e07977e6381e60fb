import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { say } from '../../messages/words';
import { creditsOf, hundredthsOf, placeFor } from '../../testing/scoreAlone';
import { gaps } from './candidate';
import { gapsKey } from './key';
import { blocksOf, cutAtGaps } from './pieces';
import { samples } from './samples';
import { sentenceAround } from './sentence';

const { content } = samples[0]!;
const shown = gapsKey.show(content.asked, null, placeFor(300));
const marks = (filled: Record<string, string>, of = 300) =>
  hundredthsOf(gapsKey, { content, response: { filled }, marks: of });

describe('gaps', () => {
  it.each([
    ['both right', { a: 'kept', b: ' TENTH ' }, 300],
    ['one slip forgiven', { a: 're-sown', b: 'tenht' }, 150],
    ['two slips are too many', { b: 'tnht' }, 0],
    ['two words where one is asked', { a: 'kept', b: 'a tenth' }, 150],
    ['a variant with a share of its own', { a: 'kept', b: 'decimal' }, 225],
  ])('%s', (_, filled, expected) => expect(marks(filled)).toBe(expected));

  it('are a component each, whose shares add up to the marks', () => {
    expect(gapsKey.components(content, 201).map((c) => c.of)).toEqual([101, 100]);
    const credits = creditsOf(gapsKey, {
      content,
      response: { filled: { a: 'kept', b: '\u200b ' } },
      marks: 201,
    });
    // What cannot be seen is not entered.
    expect(credits.map((c) => [c.component, c.hundredths, c.verdict])).toEqual([
      ['a', 101, 'right'],
      ['b', 0, 'unanswered'],
    ]);
  });

  it.each([
    [{}, 'empty', '2 gaps are empty'],
    [{ a: 'kept' }, 'part', 'Gap 2 is empty'],
    [{ a: 'kept', b: 'a tenth' }, 'part', 'Gap 2 takes one word only'],
    [{ a: 'kept', b: 'tenth' }, 'done', ''],
  ])('%j is %s', (filled, state, words) => {
    const progress = gaps.progress(shown, { filled });
    expect([progress.state, progress.missing ? say(progress.missing) : '']).toEqual([state, words]);
  });

  it('refuses what is not on the list or not a gap', () => {
    expect(gaps.misfit(shown, { filled: { a: 'lost' } })?.code).toBe('gaps.notListed');
    expect(gaps.misfit(shown, { filled: { z: 'x' } })?.code).toBe('gaps.noGap');
  });

  it('read an option of a list alike with a space around it and without', () => {
    const [list, typing] = content.asked.gaps;
    const asked = {
      ...content.asked,
      gaps: [{ ...list!, options: ['kept ', ' re-sown'] }, typing!],
    } as typeof content.asked;
    const key = { gaps: { ...content.key.gaps, a: { by: 'list', right: 'kept ' } } } as typeof content.key;
    for (const own of ['kept ', 'kept', ' kept'])
      expect(
        hundredthsOf(gapsKey, { content: { asked, key }, response: { filled: { a: own } }, marks: 300 }),
      ).toBe(150);
    expect(gapsKey.check({ asked, key }, placeFor(300))).toEqual([]);
    const same = { ...asked, gaps: [{ ...list!, options: ['kept', 'kept '] }, typing!] } as typeof asked;
    expect(gapsKey.check({ asked: same, key }, placeFor(300)).map((i) => i.message.code)).toEqual([
      'gaps.sameOption',
    ]);
  });

  it('weigh as the author says', () => {
    const weighted = {
      ...content.asked,
      gaps: [{ ...content.asked.gaps[0]!, weight: 2 }, content.asked.gaps[1]!],
    };
    expect(gapsKey.components({ ...content, asked: weighted }, 300).map((c) => c.of)).toEqual([200, 100]);
  });

  it('read back as text', () => {
    expect(gaps.describe(shown, { filled: { a: 'kept' } }, say).text).toBe(
      'Lot K-2 is [kept] because no more than a [ ] are empty.',
    );
  });

  it('accept one more answer, as a table of the answers names it', () => {
    const response = { filled: { b: ' A  Tenth' } };
    const [fact] = gapsKey.facts({ content, response, place: placeFor(300), siblings: {} });
    expect(fact).toEqual({ component: 'b', type: 'text', answer: 'a tenth', right: false });
    const key = gapsKey.accept(content, 'b', 'zehntel')!;
    expect(
      hundredthsOf(gapsKey, {
        content: { ...content, key },
        response: { filled: { b: 'Zehntel' } },
        marks: 300,
      }),
    ).toBe(150);
    expect(gapsKey.accept(content, 'a', 're-sown')).toBeNull();
  });

  it('are heard with the sentence around them', () => {
    const pieces = cutAtGaps({ text: 'First. Lot [[a]] is [[b]]. Last.', gaps: shown.gaps });
    const heard = [1, 3].map((at) => sentenceAround(pieces, at, (n) => `gap ${n}`));
    expect(heard).toEqual(['Lot gap 1 is gap 2.', 'Lot gap 1 is gap 2.']);
  });

  it('stand in tables too: rows begin with a bar, and headings stand over a line of dashes', () => {
    const table = samples[1]!.content.asked;
    const blocks = blocksOf({ text: table.text, gaps: [...table.gaps] });
    expect(blocks.map((block) => block.is)).toEqual(['text', 'table', 'text']);
    const [, middle] = blocks;
    if (middle?.is !== 'table') throw new Error('no table');
    expect(middle.head?.map(([cell]) => cell)).toEqual([
      { text: 'Lot' },
      { text: 'Sown' },
      { text: 'Decision' },
    ]);
    // Counted on through the rows, as they are read.
    expect(middle.rows.map((row) => row.flat().flatMap((p) => ('gap' in p ? [p.position] : [])))).toEqual([
      [1],
      [2],
    ]);
    const plain = blocksOf({ text: '| [[a]] | x |\n| y | |', gaps: shown.gaps });
    expect(plain).toMatchObject([{ is: 'table', head: null }]);
    expect(
      gaps.describe({ text: table.text, gaps: [...table.gaps] }, { filled: { b: '220' } }, say).text,
    ).toBe(
      'Fill in the two lots.\n\nLot · Sown · Decision\nK-1 · 240 · [ ]\nK-2 · [220] · kept\n\nBoth were counted on day 21.',
    );
  });
});
