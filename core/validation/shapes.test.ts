import Joi from 'joi';
import { describe, expect, it } from 'vitest';
import { documentSchema } from '../documents/documentSchema';
import {
  check,
  holding,
  isOf,
  listOf,
  objectOf,
  oneOf,
  parsed,
  recordOf,
  textOf,
  variantOf,
  whole,
} from './shapes';

interface Tray {
  readonly name: string;
  readonly rows: number | null;
  readonly sown?: boolean | undefined;
  readonly state: 'open' | 'closed';
}
const tray = objectOf<Tray>({
  name: textOf(10, 1),
  rows: whole(1, 9).allow(null),
  sown: Joi.boolean().optional(),
  state: oneOf(['open', 'closed']),
});
const good = { name: 'A', rows: 3, state: 'open' };

/** A schema that counts how often it is asked. */
function counted(): { readonly schema: Joi.AnySchema<string>; readonly asked: () => number } {
  let asked = 0;
  const schema = Joi.string().custom((value: string) => {
    asked += 1;
    return value;
  });
  return { schema, asked: () => asked };
}

describe('a schema of an object', () => {
  it.each([
    [good, []],
    [{ ...good, rows: null, sown: true }, []],
    [{ name: 'A', state: 'open' }, ['rows is required']],
    [{ ...good, rows: '3' }, ['rows must be a number']],
    [{ ...good, colour: 'red' }, ['colour is not allowed']],
    [
      { ...good, state: 'ajar', name: '' },
      ['name is not allowed to be empty', 'state must be one of [open, closed]'],
    ],
    [
      JSON.parse('{"__proto__":{"name":"A","rows":3,"state":"open"}}'),
      ['name is required', 'rows is required', 'state is required'],
    ],
    [null, [' must be of type object']],
    [[good], [' must be of type object']],
    [undefined, [' is required']],
  ])('finds in %j: %j', (value, problems) => {
    const checked = check(tray, value, { all: true });
    const found = 'problems' in checked ? checked.problems : [];
    expect(found.map(({ path, problem }) => `${path.join('.')} ${problem}`)).toEqual(problems);
  });

  it('demands a member whose schema says so itself', () => {
    const schema = objectOf<{ size: number }>({ size: whole(1).required() });
    expect(check(schema, {})).toEqual({ problems: [{ path: ['size'], problem: 'is required' }] });
  });

  it('gives the value, with what has a default', () => {
    const schema = objectOf<{ size: number }>({ size: whole(1).default(100) });
    expect(parsed(schema, {})).toEqual({ size: 100 });
    expect(() => parsed(schema, { size: 0 })).toThrow('size must be greater than or equal to 1');
  });
});

describe('what is too long', () => {
  it('is refused before its entries are looked at: a list', () => {
    const { schema, asked } = counted();
    const list = listOf(schema, { most: 3 });
    expect(
      isOf(
        list,
        Array.from({ length: 4 }, () => 'x'),
      ),
    ).toBe(false);
    expect(asked()).toBe(0);
    expect(isOf(list, ['x', 'y', 'z'])).toBe(true);
  });

  it('is refused before its members are looked at: a record', () => {
    const { schema, asked } = counted();
    const record = recordOf(/^[a-z]$/, schema, 2);
    expect(isOf(record, { a: 'x', b: 'x', c: 'x' })).toBe(false);
    expect(asked()).toBe(0);
    expect(isOf(record, { a: 'x', b: 'x' })).toBe(true);
    expect(isOf(record, { a: 'x', 1: 'x' })).toBe(false);
    expect(isOf(record, ['x'])).toBe(false);
  });
});

describe('a union', () => {
  type Sort =
    | { readonly by: 'typing'; readonly slips: number }
    | { readonly by: 'list'; readonly of: string };
  const sort = variantOf<Sort>('by', [
    ['typing', objectOf<Extract<Sort, { by: 'typing' }>>({ by: oneOf(['typing']), slips: whole(0) })],
    ['list', objectOf<Extract<Sort, { by: 'list' }>>({ by: oneOf(['list']), of: textOf(5) })],
  ]);

  it.each([
    [{ by: 'typing', slips: 0 }, true],
    [{ by: 'list', of: '' }, true],
    [{ by: 'list', slips: 0 }, false],
    [{ by: 'voice' }, false],
    [{}, false],
    ['typing', false],
  ])('%j: %s', (value, is) => expect(isOf(sort, value)).toBe(is));
});

it('a condition beyond the shape says what is wrong', () => {
  const even = holding(whole(0), (value: number) => value % 2 === 0, 'is not even');
  expect(check(even, 3)).toEqual({ problems: [{ path: [], problem: 'is not even' }] });
  expect(check(even, 4)).toEqual({ value: 4 });
});

describe('a tree', () => {
  const paragraph = (children: unknown) => ({ format: 1, blocks: [{ type: 'paragraph', children }] });

  it.each([
    [paragraph([{ type: 'text', text: 'Sow in March.' }]), null],
    [
      paragraph([{ type: 'strong', children: [{ type: 'text', text: 7 }] }]),
      'blocks.0.children.0.children.0.text',
    ],
    [paragraph([{ type: 'text', text: '', colour: 'red' }]), 'blocks.0.children.0.colour'],
    [paragraph([{ type: 'script', text: '' }]), 'blocks.0.children.0'],
    [paragraph([JSON.parse('{"__proto__":{"type":"break"}}')]), 'blocks.0.children.0'],
    [paragraph('Sow'), 'blocks.0.children'],
    [{ format: 2, blocks: [] }, 'format'],
    [[], 'its top'],
  ])('%j: the first place that does not fit is %s', (value, place) => {
    const checked = check(documentSchema, value);
    const problem = place === null ? [] : [{ path: [], problem: `is no text: see ${place}` }];
    expect('problems' in checked ? checked.problems : []).toEqual(problem);
  });

  it('that is nested without end is refused', () => {
    let inner: unknown = { type: 'break' };
    for (let i = 0; i < 100_000; i += 1) inner = { type: 'strong', children: [inner] };
    expect(isOf(documentSchema, paragraph([inner]))).toBe(false);
  });
});
