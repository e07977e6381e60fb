import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { say } from '../../messages/words';
import { exactOf } from '../../numbers/exact';
import { hundredthsOf, placeFor } from '../../testing/scoreAlone';
import { numberLine } from './candidate';
import { numberLineKey } from './key';
import { piece, samples } from './samples';
import { isSameSet } from './sets';

const { content } = samples[0]!;
const shown = numberLineKey.show(content.asked, null, placeFor(200));
const [O, C] = [true as const, undefined];
const span = (from: string, to: string, fromOpen?: true, toOpen?: true) =>
  piece(from, to, { ...(fromOpen && { from: fromOpen }), ...(toOpen && { to: toOpen }) });

describe('number line', () => {
  it('compares points with points and intervals with intervals, whatever the tolerance', () => {
    const within = (given: string, right: string) =>
      isSameSet(
        [span(...(given.split(' ') as [string, string]))],
        [span(...(right.split(' ') as [string, string]))],
        exactOf('0.1'),
      );
    expect(within('2.6 2.6', '2.7 2.7')).toBe(true);
    expect(within('2.6 2.8', '2.7 2.7')).toBe(false);
    expect(within('2.7 2.7', '2.6 2.8')).toBe(false);
    expect(within('2.6 2.7', '2.6 2.8')).toBe(true);
  });

  it.each([
    ['itself', [span('0', '2')], [span('0', '2')], true],
    ['in another order', [span('0', '1'), span('2', '3')], [span('2', '3'), span('0', '1')], true],
    ['touching pieces are one', [span('0', '1'), span('1', '2', O)], [span('0', '2')], true],
    ['two open ends leave a hole', [span('0', '1', C, O), span('1', '2', O)], [span('0', '2')], false],
    [
      'a point fills the hole',
      [span('0', '1', C, O), span('1', '1'), span('1', '2', O)],
      [span('0', '2')],
      true,
    ],
    ['overlapping', [span('0', '2'), span('1', '3')], [span('0', '3')], true],
    ['one inside another', [span('0', '3'), span('1', '2', O, O)], [span('0', '3')], true],
    ['a closed end wins over an open one', [span('0', '2', C, O), span('0', '2')], [span('0', '2')], true],
    ['open is not closed', [span('0', '2', O)], [span('0', '2')], false],
    ['another end', [span('0', '2.5')], [span('0', '2')], false],
    ['a ray is no interval', [piece('0', null)], [span('0', '4')], false],
    [
      'rays over the whole line',
      [piece(null, '1'), piece('0', null)],
      [piece(null, '4'), piece('-1', null)],
      true,
    ],
    ['something beside it', [span('0', '2'), span('3', '3')], [span('0', '2')], false],
    ['a point is an interval of one place', [span('1', '1')], [span('1', '1')], true],
  ])('compares sets: %s', (_, given, right, same) => {
    expect([isSameSet(given, right, exactOf('0')), isSameSet(right, given, exactOf('0'))]).toEqual([
      same,
      same,
    ]);
  });

  it('takes ends within the tolerance, its limit included', () => {
    const near = { ...content, key: { pieces: [span('0', '2')], tolerance: '0.5' } };
    const marks = (...pieces: ReturnType<typeof span>[]) =>
      hundredthsOf(numberLineKey, { content: near, response: { pieces }, marks: 200 });
    expect([
      marks(span('0.5', '1.5')),
      marks(span('0', '2.5')),
      marks(span('1', '2')),
      marks(span('0', '2', O)),
    ]).toEqual([200, 200, 0, 0]);
  });

  it('is described in words', () => {
    const pieces = [span('-2', '2', O), piece('3', null), piece(null, '-3', { to: true }), span('1', '1')];
    expect(numberLine.describe(shown, { pieces }, say).text).toBe(
      'more than −2, up to and including 2; from 3; less than −3; 1',
    );
    expect(numberLine.describe({ ...shown, locale: 'de' }, { pieces: [span('0.5', '0.5')] }, say).text).toBe(
      '0,5',
    );
  });

  it.each([
    [[span('2', '0')], 'number-line.unsound'],
    [[piece(null, null)], 'number-line.unsound'],
    [[span('1', '1', O)], 'number-line.unsound'],
    [[span('0', '5')], 'number-line.outside'],
    [['0', '1', '2', '3'].map((at) => span(at, at)), 'number-line.tooMany'],
  ])('refuses what cannot be (%#)', (pieces, code) => {
    expect(numberLine.misfit(shown, { pieces })?.code).toBe(code);
  });

  it('refuses a sort that is not asked', () => {
    expect(numberLine.misfit({ ...shown, sorts: ['point'] }, { pieces: [span('0', '1')] })?.code).toBe(
      'number-line.unsound',
    );
    expect(numberLine.progress(shown, { pieces: [] }).state).toBe('empty');
  });

  it.each([
    [
      { ...content, asked: { ...content.asked, axis: { ...content.asked.axis, step: '3' } } },
      'number-line.axis',
    ],
    [{ ...content, key: { ...content.key, pieces: [] } }, 'number-line.noRight'],
    [{ ...content, key: { ...content.key, tolerance: '-1' } }, 'number-line.tolerance'],
    [{ ...content, key: { ...content.key, pieces: [span('0', '9')] } }, 'number-line.outside'],
  ])('has an issue where its halves do not fit (%#)', (one, code) => {
    expect(numberLineKey.check(one, placeFor(200)).map((issue) => issue.message.code)).toContain(code);
  });
});
