import { describe, expect, it } from 'vitest';
import type { Json } from '../kinds/evidence';
import { sameText, type TextComparison } from './compareText';
import { sameValue } from './compareValues';
import { givenValue, starterOf, typedValue, type ValueType } from './signature';
import { showValue, type Value } from './value';

const i = (n: number | bigint): Value => ['i', String(n)];
const f = (text: string): Value => ['f', text];
const list = (...items: Value[]): Value => ['l', ...items];
const plain = { within: 0, anyOrder: false };

describe('values of programs', () => {
  it.each<[string, Value, Value, boolean]>([
    ['2^53 + 1 is not 2^53', i(2n ** 53n + 1n), i(2n ** 53n), false],
    ['10^400 is itself', i(10n ** 400n), i(10n ** 400n), true],
    // Beyond 4,000 digits whole numbers travel in hexadecimal: 0xff is 255.
    ['hexadecimal digits', i(-255), ['i', '-0xff'], true],
    ['a whole number that a type asks for is no fraction', i(3), f('3.0'), false],
    ['a decimal is a number by its value', ['d', '3'], i(3), true],
    ['a decimal is a number by its value, a fraction too', ['d', '0.3'], f('0.3'), true],
    ['0.1 + 0.2 is not 0.3', ['d', '0.3'], f('0.30000000000000004'), false],
    ['1e21 in its exact digits', ['d', '1e+21'], i(10n ** 21n), true],
    ['nan is no number', ['d', '0'], f('nan'), false],
    ['a text is no number', '1', i(1), false],
    ['nothing is not nought', null, i(0), false],
    ['a truth is no number', true, i(1), false],
    ['bytes are no text', ['b', '61'], 'a', false],
    ['maps by key, in any order', ['m', 'a', i(1), 'b', i(2)], ['m', 'b', i(2), 'a', i(1)], true],
    ['a map with one key more', ['m', 'a', i(1)], ['m', 'a', i(1), 'b', i(1)], false],
    ['a whole key is no text', ['m', i(1), 'x'], ['m', '1', 'x'], false],
    ['sets in any order', ['s', i(1), i(2)], ['s', i(2), i(1)], true],
    ['a set is no list', ['s', i(1)], list(i(1)), false],
    ['lists in their order', list(i(1), i(2)), list(i(2), i(1)), false],
  ])('%s', (_, expected, got, same) => expect(sameValue(expected, got, plain)).toBe(same));

  it('compares decimals within a tolerance exactly, its limit included, and whole numbers never within one', () => {
    const within = (a: Value, b: Value, tolerance: number) =>
      sameValue(a, b, { within: tolerance, anyOrder: false });
    // In binary fractions 0.4 − 0.3 is more than 0.1.
    expect(within(['d', '0.3'], f('0.4'), 0.1)).toBe(true);
    expect(within(['d', '0.3'], f('0.4'), 0.09)).toBe(false);
    expect(within(['d', '1e-7'], f('2.1e-7'), 1e-7)).toBe(false);
    expect(within(i(3), i(4), 1)).toBe(false);
  });

  it('pairs the elements of a list in any order, within the tolerance too', () => {
    const any = { within: 0.5, anyOrder: true };
    const d = (text: string): Value => ['d', text];
    // 1 with 1.4, 2 with 1.6: each within 0.5; the other pairing is not.
    expect(sameValue(list(d('1'), d('2')), list(f('1.6'), f('1.4')), any)).toBe(true);
    expect(sameValue(list(d('1'), d('1')), list(f('1'), f('2')), any)).toBe(false);
    const row = (name: string, n: Value) => list(name, n);
    const rows = list(row('a', d('1')), row('a', d('2')), row('b', d('1')));
    expect(sameValue(rows, list(row('b', f('1.2')), row('a', f('1.7')), row('a', f('1.3'))), any)).toBe(true);
    expect(sameValue(rows, list(row('b', f('1.2')), row('a', f('1.7')), row('a', f('2.4'))), any)).toBe(
      false,
    );
  });

  it.each<[ValueType, Json, Value | undefined]>([
    ['whole', 5, i(5)],
    ['whole', '9007199254740993', i(9007199254740993n)],
    ['whole', 2 ** 53, undefined],
    ['whole', 1.5, undefined],
    ['decimal', 1.5, ['d', '1.5']],
    ['decimal', '0.10', ['d', '0.10']],
    ['text', 'a', 'a'],
    ['text', 1, undefined],
    ['truth', false, false],
    ['nothing', null, null],
    [{ list: 'whole' }, [1, 2], list(i(1), i(2))],
    [{ list: 'whole' }, [1, 'x'], undefined],
    [{ map: 'truth' }, { a: true }, ['m', 'a', true]],
    [{ record: { name: 'text', up: 'whole' } }, { name: 'K', up: 1 }, ['m', 'name', 'K', 'up', i(1)]],
    [{ record: { name: 'text' } }, {}, undefined],
    [{ record: { name: 'text' } }, { name: 'K', more: 1 }, undefined],
    [{ record: { name: 'text' } }, null, undefined],
    ['any', [1, null, { a: 1.5 }], list(['d', '1'], null, ['m', 'a', ['d', '1.5']])],
  ])('%j reads %j', (type, json, value) => expect(typedValue(json, type)).toEqual(value));

  it('gives programs whole numbers as such, and decimals as fractions', () => {
    expect(givenValue([1, 1.5], 'any')).toEqual(list(i(1), f('1.5')));
    expect(givenValue(3, 'decimal')).toEqual(f('3'));
    expect(givenValue([{ x: 3, n: 3 }], { list: { record: { x: 'decimal', n: 'whole' } } })).toEqual(
      list(['m', 'x', f('3'), 'n', i(3)]),
    );
  });

  it('are shown as their language writes them', () => {
    const value: Value = list(null, true, 'a"b', i(2), ['m', 'k', f('0.5')], ['s']);
    expect(showValue(value, 'python')).toBe('[None, True, "a\\"b", 2, {"k": 0.5}, set()]');
    expect(showValue(value, 'typescript')).toBe('[null, true, "a\\"b", 2, {"k": 0.5}, set()]');
  });

  it('a signature makes what a candidate begins with, in each language', () => {
    const signature = {
      name: 'pick',
      parameters: [
        { name: 'lots', type: { list: { record: { name: 'text', up: 'whole' } } } },
        { name: 'least', type: 'decimal' },
      ],
      returns: { list: 'text' },
    } as const;
    expect(starterOf(signature, 'python')).toBe(
      'def pick(lots: list[dict], least: float) -> list[str]:\n    pass\n',
    );
    expect(starterOf(signature, 'typescript')).toContain(
      'function pick(lots: ({ name: string; up: number })[], least: number): string[] {',
    );
    expect(starterOf(signature, 'javascript')).toContain('@returns {string[]}');
  });
});

describe('many values in any order', () => {
  const row = (name: string, n: string): Value => list(name, ['d', n]);
  const any = { within: 0.01, anyOrder: true };
  const rows = (shift: number) => Array.from({ length: 500 }, (_, n) => row('lot', (n + shift).toFixed(3)));

  it('pairs five hundred rows of which every figure differs within the tolerance, backwards too', () => {
    expect(sameValue(list(...rows(0)), list(...rows(0.01).reverse()), any)).toBe(true);
    expect(sameValue(list(...rows(0)), list(...rows(0.011)), any)).toBe(false);
    expect(sameValue(list(row('a', '1'), row('b', '2')), list(row('a', '2'), row('b', '1')), any)).toBe(
      false,
    );
  });

  it('finds a pairing that is not the one in order: 1 and 1.01 with 1.02 and 1 leave one way each', () => {
    const of = (...figures: string[]) => list(...figures.map((n) => list(['d', n], ['d', '0'])));
    expect(sameValue(of('1', '1.01'), of('1.02', '1'), any)).toBe(true);
    expect(sameValue(of('1', '1.01'), of('1.03', '1'), any)).toBe(false);
  });

  it('keeps long whole keys of a map apart, to their last digit', () => {
    const map = (a: string, b: string): Value => ['m', ['i', a], 'first', ['i', b], 'second'];
    const [low, high] = ['9007199254740992000001', '9007199254740992000002'];
    expect(sameValue(map(low, high), map(low, high), plain)).toBe(true);
    expect(sameValue(map(low, high), map(high, low), plain)).toBe(false);
  });
});

describe('what a program wrote', () => {
  const by = (text: TextComparison['text'], within = 0, anyOrder = false) => ({
    text,
    within,
    anyOrder,
  });
  it.each<[string, TextComparison, string, string, boolean]>([
    ['sign by sign', by('exact'), 'a \n', 'a \n', true],
    ['a space at the end counts there', by('exact'), 'a\n', 'a \n', false],
    ['not by lines', by('lines'), 'a\nb\n', 'a  \r\nb\n\n\n', true],
    ['a space within a line counts', by('lines'), 'a b', 'a  b', false],
    ['nor by words', by('words'), 'a b\nc', ' a  b c ', true],
    ['numbers within the tolerance', by('words', 0.01), 'x 1.50', 'x 1.51', true],
    ['beyond it', by('words', 0.01), 'x 1.50', 'x 1.511', false],
    ['exact digits without one', by('words'), '1.50', '1.5', false],
    ['lines in any order', by('lines', 0, true), 'a\nb', 'b\na\n', true],
    ['as often as they are expected', by('lines', 0, true), 'a\nb', 'a\na', false],
  ])('is compared %s', (_, rule, expected, got, same) => expect(sameText(expected, got, rule)).toBe(same));
});
