import { describe, expect, it } from 'vitest';
import { plainDocument } from '../documents/document';
import type { EvidenceFound } from '../kinds/evidence';
import type { KindName } from '../kinds/kindNames';
import { keyKindOf } from '../kinds/keyKinds';
import { samples as choices } from '../kinds/choice/samples';
import { samples as expressions } from '../kinds/expression/samples';
import { samples as numbers } from '../kinds/number/samples';
import { samples as programs } from '../kinds/code/samples';
import { column, figureKey } from '../kinds/table-entry/samples';
import { samples as writings } from '../kinds/writing/samples';
import { plus, sibling, times } from '../testing/formulas';
import { issuesOfRightAnswers } from './rightAnswers';
import type { Item } from './paper';

const itemOf = (...parts: readonly (readonly [KindName, unknown, number])[]): Item => ({
  key: 'item',
  version: 1,
  title: 'Item',
  introduction: plainDocument(''),
  source: null,
  parts: parts.map(([kind, content, marks], i) => ({
    key: 'ABC'[i]!,
    kind,
    version: keyKindOf(kind).contentVersion,
    marks,
    minutes: null,
    prompt: plainDocument('Do it.'),
    content: content as Item['parts'][number]['content'],
  })),
});
const equal: EvidenceFound = { sort: 'expression', is: 'equal', why: '', inForm: true };
const problems = (item: Item, run = (): EvidenceFound | null => equal) =>
  issuesOfRightAnswers([item], run).map(({ path, message }) => [path[3], message.code]);
const LESS = 'author.rightEarnsLess';

const plain = numbers[1]!.content;
const figures = (figure: string, count: number) => ({
  asked: { ...plain.asked, demand: { by: 'figures', figures: count } as const },
  key: { tolerance: null, accepted: [{ figure, percent: 100, note: '' }], also: [] },
});

describe('right answers of a paper', () => {
  it('earn all the marks of what can be published', () => {
    for (const [kind, samples] of [
      ['choice', choices],
      ['number', numbers],
      ['writing', writings],
    ] as const)
      for (const { content, marks } of samples) expect(problems(itemOf([kind, content, marks]))).toEqual([]);
  });

  it.each([
    // 5 to two figures is 5.0, 1234 is 1200, 0.0996 is 0.10
    ['5', 2, []],
    ['1234', 2, []],
    ['0.0996', 2, []],
    ['-1200.4', 3, []],
    // No way of writing 0 has significant figures beyond one.
    ['0', 2, [[0, LESS]]],
  ])('of %s to %i significant figures', (figure, count, expected) =>
    expect(problems(itemOf(['number', figures(figure, count), 100]))).toEqual(expected),
  );

  it('keep a part from being published where they earn less', () => {
    const { content, marks } = expressions[0]!;
    const item = itemOf(['number', plain, 100], ['expression', content, marks]);
    expect(problems(item)).toEqual([]);
    expect(problems(item, () => ({ ...equal, is: 'different' }))).toEqual([[1, LESS]]);
    // What cannot be decided is for people, who would mark the right answer by hand.
    expect(problems(item, () => ({ ...equal, is: 'undecided' }))).toEqual([[1, LESS]]);
  });

  it('are not asked of programs, whose right answer nobody gave', () => {
    const { content, marks } = programs[0]!;
    expect(problems(itemOf(['code', content, marks]), () => null)).toEqual([]);
  });

  it('build on the right answers of the parts before: A, ten times A, and five more', () => {
    const a = figures('4', 1);
    const b = column([['b', '?']], [figureKey('b_x', '40', times(sibling('A', 'figure'), 10))]);
    const c = (right: string) =>
      column([['c', '?']], [figureKey('c_x', right, plus(sibling('B', 'b_x'), 5))]);
    expect(
      problems(itemOf(['number', a, 100], ['table-entry', b, 100], ['table-entry', c('45'), 100])),
    ).toEqual([]);
  });
});
