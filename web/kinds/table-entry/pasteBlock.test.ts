import { describe, expect, it } from 'vitest';
import { samples } from '../../../core/kinds/table-entry/samples';
import { tableEntryKey } from '../../../core/kinds/table-entry/key';
import { entriesOf } from '../../../core/kinds/table-entry/response';
import { placeFor } from '../../../core/testing/scoreAlone';
import { blockOf, pasteBlock } from './pasteBlock';

const shown = (n: number) => tableEntryKey.show(samples[n]!.content.asked, null, placeFor(400));
const at = (n: number, name: string) => entriesOf(shown(n)).find((place) => place.name === name)!;

describe('a pasted block', () => {
  it.each([
    ['12', null],
    ['1\t2', [['1', '2']]],
    ['1\r\n2\r\n', [['1'], ['2']]],
    [
      '1\t2\n\t4',
      [
        ['1', '2'],
        ['', '4'],
      ],
    ],
  ])('%j is cut into cells', (text, block) => expect(blockOf(text)).toEqual(block));

  it('is laid over the cells from where one is, and tells what had no place', () => {
    // From “To re-sowing, Out”: the second row's Out and Held, then a row that only has totals, then none.
    const block = [
      ['120', '1720'],
      ['5', '2075'],
      ['9', '9'],
      ['7', ''],
    ];
    const before = { cells: { sowing_out: '1', gift_in: '355' } };
    const { response, filled, left } = pasteBlock(shown(0), before, at(0, 'sowing_out'), block);
    expect(response.cells).toEqual({
      sowing_out: '120',
      sowing_held: '1720',
      gift_in: '355',
      gift_out: '5',
      gift_held: '2075',
    });
    expect([filled, left]).toEqual([4, 3]);
    expect(before.cells.sowing_out).toBe('1');
  });

  it('puts into a list only what is in it, and cuts what is endless', () => {
    const { response, left } = pasteBlock(shown(1), { cells: {} }, at(1, 'year_amount'), [
      ['x'.repeat(900), 'a bad year', 'LOSS'],
    ]);
    expect([response.cells.year_amount!.length, response.cells.year_result, left]).toEqual([200, 'loss', 0]);
    expect(pasteBlock(shown(1), { cells: {} }, at(1, 'year_result'), [['neither']])).toMatchObject({
      filled: 0,
      left: 1,
    });
  });
});
