import { describe, expect, it } from 'vitest';
import type { CaseGroup } from '../kinds/code/content';
import { samples as codeSamples } from '../kinds/code/samples';
import { samples as gaps } from '../kinds/gaps/samples';
import { samples as numbers } from '../kinds/number/samples';
import { column, figureKey } from '../kinds/table-entry/samples';
import type { Item, Part } from '../papers/paper';
import { emptyDocument } from '../documents/document';
import { plus, sibling } from '../testing/formulas';
import { affectedParts, changedItem, type KeyChange } from './change';

const partOf = (key: string, kind: Part['kind'], content: Part['content'], marks = 200): Part => ({
  key,
  kind,
  content,
  marks,
  version: 1,
  minutes: null,
  prompt: emptyDocument,
});
const itemOf = (...parts: Part[]): Item => ({
  key: 'tray',
  version: 1,
  title: 'Tray',
  introduction: emptyDocument,
  source: null,
  parts,
});
const keyOf = (item: Item, change: KeyChange) => {
  const made = changedItem(item, 'A', change);
  return 'item' in made ? made.item.parts[0]!.content.key : made.problem;
};

describe('a corrected part', () => {
  it('has another key, or one more accepted answer; the published item stays as it is', () => {
    const item = itemOf(partOf('A', 'number', numbers[0]!.content));
    const key = { ...numbers[0]!.content.key, accepted: [{ figure: '7', percent: 100, note: '' }] };
    expect(keyOf(item, { type: 'key', key })).toEqual(key);
    expect(keyOf(item, { type: 'accept', component: 'whole', answer: '7/3' })).toMatchObject({
      also: ['7/3'],
    });
    expect(item.parts[0]!.content).toBe(numbers[0]!.content);
  });

  it('keeps what people mark, and the names of what the machine marks', () => {
    const { content, marks } = codeSamples.find((one) => one.content.key.rubric !== null)!;
    const item = itemOf(partOf('A', 'code', content, marks));
    const own = content.key;
    const groups = (change: (group: CaseGroup, i: number) => CaseGroup) => ({
      ...own,
      groups: own.groups.map(change),
    });
    const heavier = groups((group, i) => ({ ...group, weight: i + 2 }));
    expect(keyOf(item, { type: 'key', key: heavier })).toEqual(heavier);
    expect(keyOf(item, { type: 'key', key: groups((one) => ({ ...one, key: `${one.key}x` })) })).toBe(
      'other components',
    );
    const rubric = { ...own.rubric!, criteria: own.rubric!.criteria.slice(1) };
    expect(keyOf(item, { type: 'key', key: { ...own, rubric } })).toMatch(
      /contradicts|other components|unreadable/,
    );
  });

  it('cannot have less than its question asks for', () => {
    const content = gaps[0]!.content;
    const [first] = Object.keys(content.key.gaps);
    const { [first!]: _, ...rest } = content.key.gaps;
    expect(keyOf(itemOf(partOf('A', 'gaps', content)), { type: 'key', key: { gaps: rest } })).toBe(
      'contradicts',
    );
  });
});

it('the parts that build on a corrected one are scored again with it, all the way', () => {
  const b = column([['b', '?']], [figureKey('b_x', '12', plus(sibling('A', 'figure'), 5))]);
  const c = column([['c', '?']], [figureKey('c_x', '17', plus(sibling('B', 'b_x'), 5))]);
  const item = itemOf(
    partOf('A', 'number', numbers[0]!.content),
    partOf('B', 'table-entry', b),
    partOf('C', 'table-entry', c),
    partOf('D', 'number', numbers[0]!.content),
  );
  expect([...affectedParts(item, 'A')]).toEqual(['A', 'B', 'C']);
  expect([...affectedParts(item, 'D')]).toEqual(['D']);
});
