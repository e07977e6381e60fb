import { describe, expect, it } from 'vitest';
import '../candidateKinds';
import { say } from '../../messages/words';
import { exactOf } from '../../numbers/exact';
import { minus, over, plus, round, sibling, sum, times, when } from '../../testing/formulas';
import { placeFor } from '../../testing/scoreAlone';
import { isDecided, type NamedValues } from '../contract';
import { showTotal, tableEntry } from './candidate';
import { tableEntryKey } from './key';
import type { TableContent } from './rightFigures';
import { column, figureKey, figures, row, samples, table } from './samples';

const [ledger, words] = [samples[0]!.content, samples[1]!.content];

type Siblings = Readonly<Record<string, NamedValues>>;

function found(content: TableContent, cells: Record<string, string>, marks = 400, siblings: Siblings = {}) {
  expect(tableEntryKey.check(content, placeFor(marks))).toEqual([]);
  const input = {
    content,
    response: { cells },
    arrangement: null,
    place: placeFor(marks),
    siblings,
    evidence: {},
  };
  return tableEntryKey.score(input);
}
const credits = (...given: Parameters<typeof found>) => found(...given).filter(isDecided);
/** The cells that are left to people. */
const left = (...given: Parameters<typeof found>) =>
  found(...given).flatMap((one) => (isDecided(one) ? [] : [one.component]));
/** Hundredths by cell, in the order of the table. */
const marksOf = (...given: Parameters<typeof credits>) => credits(...given).map((c) => c.hundredths);
const reasonOf = (cell: string, ...given: Parameters<typeof credits>) =>
  credits(...given)
    .find((c) => c.component === cell)!
    .reasons.map(say)
    .join();

describe('a ledger, by its own running balance', () => {
  // 1840 − 120 = 1720; 1720 + 355 = 2075. Four cells of a mark each; what follows from a wrong figure earns half.
  it.each([
    [
      'all right',
      { sowing_out: '120', sowing_held: '1720', gift_in: '355', gift_held: '2075' },
      [100, 100, 100, 100],
    ],
    // 1840 − 110 = 1730; 1730 + 355 = 2085
    [
      'one wrong, two follow',
      { sowing_out: '110', sowing_held: '1730', gift_in: '355', gift_held: '2085' },
      [0, 50, 100, 50],
    ],
    // 1720 + 345 = 2065
    [
      'a wrong gift',
      { sowing_out: '120', sowing_held: '1720', gift_in: '345', gift_held: '2065' },
      [100, 100, 0, 50],
    ],
    ['nothing follows from a blank cell', { sowing_held: '1730', gift_in: '355' }, [0, 0, 100, 0]],
    ['what builds on a blank cell earns by the key', { sowing_held: '1720' }, [0, 100, 0, 0]],
    // 1720 + 355 = 2075: the figure before was not entered, but the key is met.
    ['one step left out', { gift_in: '355', gift_held: '2075' }, [0, 0, 100, 100]],
    ['neither of two', { sowing_out: '110', sowing_held: '1700' }, [0, 0, 0, 0]],
    ['with its unit, and grouped', { sowing_out: '120 g', sowing_held: '1,720' }, [100, 100, 0, 0]],
    ['no minus is possible here', { sowing_out: '-120', sowing_held: '1960' }, [0, 0, 0, 0]],
  ])('%s', (_, cells, expected) =>
    expect(marksOf(ledger, cells as unknown as Record<string, string>)).toEqual(expected),
  );

  it('leaves a cell that cannot be read to people, alone: the rest is scored, and nothing follows from it', () => {
    const cells = { sowing_out: 'some', sowing_held: '1840', gift_in: '355' };
    expect(left(ledger, cells)).toEqual(['sowing_out']);
    expect(credits(ledger, cells).map((c) => [c.component, c.hundredths])).toEqual([
      ['sowing_held', 0],
      ['gift_in', 100],
      ['gift_held', 0],
    ]);
    const facts = tableEntryKey.facts({
      content: ledger,
      response: { cells },
      place: placeFor(400),
      siblings: {},
    });
    expect(facts[0]).toEqual({ component: 'sowing_out', type: 'figure', answer: 'some', right: null });
  });

  it('tells people of a figure that is right against the candidate’s own figures', () => {
    // 1840 − 110 = 1730, yet 1720 was entered
    const cells = { sowing_out: '110', sowing_held: '1720' };
    expect(marksOf(ledger, cells)).toEqual([0, 100, 0, 0]);
    expect(reasonOf('sowing_held', ledger, cells)).toMatch(/does not follow/);
    expect(reasonOf('gift_held', ledger, { ...cells, gift_in: '1', gift_held: '1721' })).toMatch(
      /follows from your/,
    );
  });

  it('works totals out while one types, what is blank counting as nothing', () => {
    const shown = tableEntryKey.show(ledger.asked, null, placeFor(400));
    const total = (cells: Record<string, string>) => showTotal(shown, { cells }, 'total_out');
    expect([
      total({}),
      total({ sowing_out: '120' }),
      total({ sowing_out: '1,200', gift_out: '5' }),
      total({ sowing_out: 'x' }),
    ]).toEqual(['0', '120', '1205', null]);
  });
});

describe('follow-through', () => {
  it('counts fully what follows from an accepted figure', () => {
    // A share of 12 of 70 is 17.14… %; 17 is near enough. 17 · 2 = 34 follows from it, the key says 34.28…
    const content = column(
      [
        ['share', '?'],
        ['both', '?'],
      ],
      [
        figureKey('share_x', null, times(over(12, 70), 100), { tolerance: '0.5' }),
        figureKey('both_x', null, times('share_x', 2), { tolerance: '0.1' }),
      ],
    );
    expect(marksOf(content, { share_x: '17', both_x: '34' }, 200)).toEqual([100, 100]);
    expect(credits(content, { share_x: '17', both_x: '34' }, 200)[1]!.verdict).toBe('right');
    // 18.5 is not near enough; 37 follows from it.
    expect(credits(content, { share_x: '18.5', both_x: '37' }, 200).map((c) => c.verdict)).toEqual([
      'wrong',
      'follow-through',
    ]);
  });

  it('rounds only where the formula says so, half away from zero', () => {
    // 100 / 3 = 33.333…, rounded 33.33; of 50: 16.666…, rounded 16.67
    const content = column(
      [
        ['sum', '?'],
        ['third', '?'],
      ],
      [figureKey('sum_x', '100'), figureKey('third_x', null, round(over('sum_x', 3), 2))],
    );
    expect(marksOf(content, { sum_x: '100', third_x: '33.33' }, 200)).toEqual([100, 100]);
    expect(marksOf(content, { sum_x: '50', third_x: '16.67' }, 200)).toEqual([0, 50]);
    expect(marksOf(content, { sum_x: '50', third_x: '16.66' }, 200)).toEqual([0, 0]);
  });

  it('finds nothing where one would divide by zero', () => {
    const content = column(
      [
        ['all', '?'],
        ['share', '?'],
      ],
      [figureKey('all_x', '50'), figureKey('share_x', null, over(200, 'all_x'))],
    );
    // 200 / 50 = 4; by 0 there is no share, not even 0
    expect(marksOf(content, { all_x: '50', share_x: '4' }, 200)).toEqual([100, 100]);
    expect(marksOf(content, { all_x: '0', share_x: '0' }, 200)).toEqual([0, 0]);
  });

  it('reads brackets as a minus, and calls a blank cell unanswered, also where the key is 0', () => {
    const content = column(
      [
        ['left', '?'],
        ['owed', '?'],
      ],
      [figureKey('left_x', '0'), figureKey('owed_x', '-250')],
    );
    expect(marksOf(content, { left_x: '0', owed_x: '(250)' }, 200)).toEqual([100, 100]);
    expect(marksOf(content, { left_x: '-0', owed_x: '−250' }, 200)).toEqual([100, 100]);
    const inPounds = {
      ...content,
      asked: { ...content.asked, columns: [figures('x', 'Amount', { minus: true, unit: '£' })] },
    };
    for (const own of ['£(250)', '(£250)', '(250)£', ' ( 250 ) £'])
      expect(marksOf(inPounds, { owed_x: own }, 200)).toEqual([0, 100]);
    for (const own of ['(-250)', '250 - 0', '-(250)', '(1)(2)', '2(50)'])
      expect(left(content, { owed_x: own }, 200)).toEqual(['owed_x']);
    // A minus within brackets has two readings: it is neither −250 nor 250.
    const plainly = column([['left', '?']], [figureKey('left_x', '250')]);
    expect(left(plainly, { left_x: '(-250)' }, 100)).toEqual(['left_x']);
    expect(credits(content, { owed_x: '250' }, 200)[0]!.verdict).toBe('unanswered');
  });

  it('takes text and lists by the candidate’s own figures', () => {
    expect(marksOf(words, { year_amount: '-250', year_note: 'a bad year', year_result: 'loss' })).toEqual([
      100, 100, 200,
    ]);
    // With a gain of 250 the year was good: half of 100, half of 200.
    expect(marksOf(words, { year_amount: '250', year_note: 'a good year', year_result: 'profit' })).toEqual([
      0, 50, 100,
    ]);
    expect(marksOf(words, { year_amount: '250', year_note: 'a good day' })).toEqual([0, 0, 0]);
    // Without a figure nothing follows.
    expect(marksOf(words, { year_result: 'profit' })).toEqual([0, 0, 0]);
  });

  it('builds on a sibling part: fully where its figure was accepted', () => {
    // Part A is 40 lots; at 3 trays a lot 40 · 3 = 120, at the candidate’s 42 lots 126.
    const content = column([['trays', '?']], [figureKey('trays_x', '120', times(sibling('A', 'figure'), 3))]);
    const lots = (figure: string, accepted: boolean) => ({
      A: { figure: { figure: exactOf(figure), accepted } },
    });
    expect(marksOf(content, { trays_x: '120' }, 100, lots('40', true))).toEqual([100]);
    expect(marksOf(content, { trays_x: '126' }, 100, lots('42', false))).toEqual([50]);
    expect(marksOf(content, { trays_x: '126' }, 100, lots('42', true))).toEqual([100]);
    expect(marksOf(content, { trays_x: '126' }, 100)).toEqual([0]);
    expect(tableEntryKey.buildsOn(content)).toEqual(['A']);
  });

  it('follows through a total that stands on the page', () => {
    // 12 + 8 = 20 is worked out; half of it is 10. With 12 + 6 = 18 it is 9.
    const content = column(
      [
        ['a', '?'],
        ['b', '?'],
        ['all', '?'],
        ['half', '?'],
      ],
      [figureKey('a_x', '12'), figureKey('b_x', '8'), figureKey('half_x', null, over('all_x', 2))],
    );
    const rows = content.asked.rows.with(2, row('all', 'all', sum('a_x', 'b_x')));
    const own = { ...content, asked: { ...content.asked, rows } };
    expect(marksOf(own, { a_x: '12', b_x: '8', half_x: '10' }, 300)).toEqual([100, 100, 100]);
    expect(marksOf(own, { a_x: '12', b_x: '6', half_x: '9' }, 300)).toEqual([100, 0, 50]);
  });

  it('leaves a cell that belongs empty out, and lets nothing that builds on it count fully once it is filled', () => {
    const content = column(
      [
        ['debit', '?'],
        ['credit', '?'],
        ['all', '?'],
      ],
      [figureKey('debit_x', '70'), figureKey('all_x', null, plus('debit_x', 'credit_x'))],
      { mayStayEmpty: true },
    );
    expect(marksOf(content, { debit_x: '70', all_x: '70' }, 200)).toEqual([100, 100]);
    // 70 + 5 = 75 follows from a figure that does not belong there.
    expect(marksOf(content, { debit_x: '70', credit_x: '5', all_x: '75' }, 200)).toEqual([100, 50]);
  });

  it('gives values to siblings, with whether they were accepted', () => {
    const values = tableEntryKey.values({
      content: ledger,
      response: { cells: { sowing_out: '110', sowing_held: '1730', gift_in: '355' } },
      place: placeFor(400),
      siblings: {},
    });
    expect(Object.entries(values).map(([name, v]) => [name, v.accepted])).toEqual([
      ['sowing_out', false],
      ['sowing_held', false],
      ['gift_in', true],
    ]);
  });

  it('divides marks by weights', () => {
    // Weights 1, 1 and 2 of 401 hundredths: 100.25, 100.25, 200.5; the last hundredth to the largest remainder
    expect(tableEntryKey.components(words, 401).map((c) => c.of)).toEqual([100, 100, 201]);
  });
});

/**
 * A trial balance with its adjustments, to the profit-and-loss account and the statement of financial position:
 *   cost of sales  3,000 + 21,000 − 4,500 = 19,500      gross profit  48,000 − 19,500 = 28,500
 *   rent           6,000 − 500 prepaid = 5,500          wages         9,200 + 300 accrued = 9,500
 *   depreciation   10 % of 12,000 = 1,200               profit        28,500 − 5,500 − 9,500 − 1,200 = 12,300
 *   equipment      12,000 − 1,200 = 10,800              net assets    10,800 + 4,500 + 500 + 6,000 − 300 = 21,500
 *   capital        9,200 + 12,300 = 21,500, as it has to be
 */
const accounts = table(
  [figures('x', '£', { unit: '£' })],
  [
    ...['sales 48000', 'opening 3000', 'purchases 21000', 'closing 4500', 'rentpaid 6000', 'prepaid 500'],
    ...['wagespaid 9200', 'accrued 300', 'bought 12000', 'bank 6000', 'capital 9200'],
    ...[
      'cost ?',
      'gross ?',
      'rent ?',
      'wages ?',
      'wear ?',
      'profit ?',
      'equipment ?',
      'assets ?',
      'owners ?',
    ],
  ].map((line) => {
    const [key, cell] = line.split(' ') as [string, string];
    return row(key, key, cell);
  }),
  [
    figureKey('cost_x', null, minus(plus('opening_x', 'purchases_x'), 'closing_x')),
    figureKey('gross_x', null, minus('sales_x', 'cost_x')),
    figureKey('rent_x', null, minus('rentpaid_x', 'prepaid_x')),
    figureKey('wages_x', null, plus('wagespaid_x', 'accrued_x')),
    figureKey('wear_x', null, times('bought_x', over(10, 100))),
    figureKey('profit_x', null, minus('gross_x', sum('rent_x', 'wages_x', 'wear_x'))),
    figureKey('equipment_x', null, minus('bought_x', 'wear_x')),
    figureKey('assets_x', null, minus(sum('equipment_x', 'closing_x', 'prepaid_x', 'bank_x'), 'accrued_x')),
    figureKey('owners_x', null, plus('capital_x', 'profit_x')),
  ],
);

describe('a trial balance to the accounts', () => {
  const right = {
    cost_x: '19,500',
    gross_x: '28,500',
    rent_x: '5,500',
    wages_x: '9,500',
    wear_x: '1,200',
    profit_x: '12,300',
    equipment_x: '10,800',
    assets_x: '21,500',
    owners_x: '£21,500',
  };

  it('is right where every figure is', () => {
    expect(marksOf(accounts, right, 900)).toEqual(Array(9).fill(100));
  });

  it('lets a forgotten adjustment cost itself alone, and half of what follows', () => {
    // Rent taken at 6,000: profit 28,500 − 6,000 − 9,500 − 1,200 = 11,800, capital 9,200 + 11,800 = 21,000
    const found = marksOf(
      accounts,
      { ...right, rent_x: '6,000', profit_x: '11,800', owners_x: '21,000' },
      900,
    );
    expect(found).toEqual([100, 100, 0, 100, 100, 50, 100, 100, 50]);
  });

  it('follows two slips at once', () => {
    // Closing stock added: 3,000 + 21,000 + 4,500 = 28,500; gross 48,000 − 28,500 = 19,500. Depreciation of 1,000:
    // profit 19,500 − 5,500 − 9,500 − 1,000 = 3,500; equipment 11,000; assets 11,000 + 4,500 + 500 + 6,000 − 300 = 21,700
    const slips = {
      cost_x: '28,500',
      gross_x: '19,500',
      wear_x: '1,000',
      profit_x: '3,500',
      equipment_x: '11,000',
    };
    const found = marksOf(accounts, { ...right, ...slips, assets_x: '21,700', owners_x: '12,700' }, 900);
    expect(found).toEqual([0, 50, 100, 100, 0, 50, 50, 50, 50]);
  });
});

describe('a table, as it is answered and written', () => {
  const shown = tableEntryKey.show(ledger.asked, null, placeFor(400));
  it.each([
    [{}, 'empty', 'Fill in the table'],
    [{ sowing_out: 'some' }, 'part', '“To re-sowing, Out” cannot be read as a number'],
    [{ sowing_out: '-1' }, 'part', '“To re-sowing, Out” cannot be read as a number'],
    [{ sowing_out: '120' }, 'done', ''],
  ])('says what is missing of %j', (cells, state, text) => {
    const found = tableEntry.progress(shown, { cells: cells });
    expect([found.state, found.missing ? say(found.missing) : '']).toEqual([state, text]);
  });

  it('names the first empty cell where none may stay empty, and reads in lines', () => {
    const own = tableEntryKey.show(words.asked, null, placeFor(400));
    const response = { cells: { year_amount: '(250)' } };
    expect(say(tableEntry.progress(own, response).missing!)).toBe(
      '2 cells are empty; the first is “The year, Note”',
    );
    expect(tableEntry.describe(own, response, say).text).toBe('The year: Amount (250)');
  });

  const circle = column(
    [
      ['a', '?'],
      ['b', '?'],
    ],
    [figureKey('a_x', '1', over('b_x', 1)), figureKey('b_x', '1', over('a_x', 1))],
  );
  it.each([
    [circle, 'formula.circle'],
    [column([['a', '?']], [figureKey('a_x', '1', plus('z_x', 1))]), 'formula.noName'],
    [column([['a', '?']], [figureKey('a_x', null, sibling('B', 'figure'))]), 'table-entry.noRight'],
    [
      column(
        [
          ['a', '?'],
          ['b', '?'],
        ],
        [figureKey('a_x', '1')],
      ),
      'table-entry.someEmpty',
    ],
    [column([['a', '5']], [figureKey('a_x', '5')]), 'table-entry.noCell'],
    [table([figures('x', 'X')], [row('a', 'A', '?')], [figureKey('a_x', '-5')]), 'table-entry.minusNeeded'],
    [table([figures('x', 'X')], [row('a', 'A', '?', '?')], [figureKey('a_x', '5')]), 'table-entry.cellCount'],
    [{ ...ledger, asked: { ...ledger.asked, heads: [{ text: 'All', columns: 2 }] } }, 'table-entry.heads'],
    [
      {
        ...words,
        key: { cells: words.key.cells.map((c) => (c.by === 'list' ? { ...c, right: 'profit' } : c)) },
      },
      'table-entry.caseDiffers',
    ],
    [
      {
        ...words,
        key: {
          cells: words.key.cells.map((c) =>
            c.by === 'list'
              ? { ...c, right: 'none', cases: [{ when: when(1, 'below', 0), right: 'none' }] }
              : c,
          ),
        },
      },
      'table-entry.rightNotListed',
    ],
  ])('has an issue where its halves do not fit (%#)', (content, code) => {
    expect(tableEntryKey.check(content, placeFor(400)).map((issue) => issue.message.code)).toContain(code);
  });
});
