import { expect, it } from 'vitest';
import { emptyDocument } from '../documents/document';
import { samples } from '../kinds/table-entry/samples';
import { figureKey, figures, row, table } from '../kinds/table-entry/samples';
import { sibling } from '../testing/formulas';
import type { Item, Part } from './paper';
import { issuesOfSiblings } from './siblings';

const building = (on: string | null) =>
  on === null
    ? samples[0]!.content
    : table([figures('x', 'X')], [row('a', 'A', '?')], [figureKey('a_x', '1', sibling(on, 'a_x'))]);

const item = (...parts: (string | null)[]): Item => ({
  key: 'item',
  version: 1,
  title: '',
  introduction: emptyDocument,
  source: null,
  parts: parts.map((on, i): Part => ({
    key: 'ABCDEF'[i]!,
    kind: 'table-entry',
    version: 1,
    marks: 100,
    minutes: null,
    prompt: emptyDocument,
    content: building(on),
  })),
});

it.each([
  [[null, 'A'], []],
  [['B', null], []],
  [['B', 'A'], ['formula.circle']],
  [['A'], ['formula.circle']],
  [['B', 'C', 'A'], ['formula.circle']],
  [[null, 'D'], ['formula.noPart']],
])('parts that build on %j have the issues %j', (parts, codes) => {
  expect(issuesOfSiblings([item(...parts)]).map((issue) => issue.message.code)).toEqual(codes);
});
