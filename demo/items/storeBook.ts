import { figure } from './contents';
import type { Draft } from './draft';

/* What the second version of the technician's paper adds: a ledger, a plane, a line of figures, chips, a grid, and working on paper. */

const entries = (texts: Readonly<Record<string, string>>) =>
  Object.entries(texts).map(([key, text]) => ({ key, text }));

const seeds = (key: string, title: string) => ({
  key,
  title,
  sort: 'figure',
  unit: '',
  minus: false,
  options: [],
});
const cell = { is: 'entry' };
const fixed = (text: string) => ({ is: 'fixed', text, figure: text.replace(' ', '') });
const total = (formula: string) => ({ is: 'total', formula });
const row = (key: string, title: string, ...cells: (object | null)[]) => ({
  key,
  title,
  strong: key === 'total' || key === 'year',
  cells,
});
const right = (name: string, figure: string | null, formula: string | null = null) => ({
  cell: name,
  weight: 1,
  follows: 100,
  by: 'figure',
  right: figure,
  formula,
  tolerance: '0',
});

export const accessionLedger: Draft = {
  key: 'accession-ledger',
  title: 'The ledger of HR-2207',
  source: {
    key: 'accession-slips',
    tabs: [
      {
        title: 'Slips',
        body: `**14 March** – :phrase[120]{#drawn} seeds drawn for a germination test.

**2 May** – :phrase[400]{#received} seeds received from the autumn harvest, cleaned and dried.

**9 June** – :phrase[215]{#sent} seeds sent to a garden on the mainland.`,
      },
      {
        title: 'How the ledger is kept',
        body: 'Each line says what came in or went out, and what is held after it. The last line is carried to the next year.',
      },
    ],
  },
  parts: [
    {
      key: 'A',
      kind: 'table-entry',
      marks: 700,
      minutes: 6,
      prompt: 'Use the slips to continue the sea kale ledger (accession HR-2207).',
      content: {
        asked: {
          caption: 'Accession HR-2207, sea kale, seeds',
          corner: 'Date',
          heads: [
            { text: 'Moved', columns: 2 },
            { text: '', columns: 1 },
          ],
          columns: [seeds('in', 'In'), seeds('out', 'Out'), seeds('held', 'Held')],
          rows: [
            row('start', 'Brought forward', null, null, fixed('1 240')),
            row('march', '14 March', null, cell, cell),
            row('may', '2 May', cell, null, cell),
            row('june', '9 June', null, cell, cell),
            row('total', 'Total', total('sum(may_in)'), total('sum(march_out, june_out)'), null),
            row('year', 'Carried to the next year', null, null, cell),
          ],
          mayStayEmpty: false,
        },
        key: {
          cells: [
            right('march_out', '120'),
            // 1 240 − 120 = 1 120; + 400 = 1 520; − 215 = 1 305
            right('march_held', null, 'start_held - march_out'),
            right('may_in', '400'),
            right('may_held', null, 'march_held + may_in'),
            right('june_out', '215'),
            right('june_held', null, 'may_held - june_out'),
            right('year_held', null, 'start_held + total_in - total_out'),
          ],
        },
      },
    },
    {
      key: 'B',
      kind: 'number',
      marks: 100,
      minutes: 1,
      prompt: 'How many packets of 45 seeds can be filled from what is carried to the next year?',
      content: figure({ accepted: [{ figure: '29', percent: 100, note: '1 305 ÷ 45 = 29.' }] }),
    },
  ],
};

export const whereTheyKeep: Draft = {
  key: 'where-they-keep',
  title: 'Where seeds keep',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'sort',
      marks: 300,
      minutes: 2,
      prompt: 'Put each into the room where it keeps. One of them keeps in neither.',
      content: {
        asked: {
          chips: entries({
            kale: 'Dry seed of sea kale',
            thrift: 'Dry seed of thrift',
            rush: 'Dry seed of Baltic rush',
            oak: 'Fresh acorns',
            chestnut: 'Fresh chestnuts',
            sprout: 'Seedlings of tray 14',
          }),
          fromSource: false,
          bins: [
            { key: 'frozen', text: 'Dry, at −18 °C', limit: null },
            { key: 'damp', text: 'In damp sand, at 3 °C', limit: null },
          ],
          often: false,
          leftOver: true,
          shuffle: true,
        },
        key: { bins: { frozen: ['kale', 'thrift', 'rush'], damp: ['oak', 'chestnut'] } },
      },
    },
  ],
};

export const whatIsWritten: Draft = {
  key: 'what-is-written',
  title: 'What is written where',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'grid-choice',
      marks: 300,
      minutes: 2,
      prompt: 'Where is each of these written?',
      content: {
        asked: {
          statements: entries({
            place: 'the place where the seed was collected',
            weight: 'the weight of what is in the packet',
            visitor: 'who visited the cold-store',
          }),
          categories: entries({
            label: 'On the label',
            ledger: 'In the ledger',
            door: 'In the book at the door',
          }),
          mode: 'one',
          rule: 'all-or-nothing',
          mayStayEmpty: false,
          shuffle: false,
        },
        key: { rows: { place: ['label'], weight: ['ledger'], visitor: ['door'] } },
      },
    },
  ],
};

export const trayCurve: Draft = {
  key: 'tray-curve',
  title: 'Tray 20 on the plane',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'plot',
      marks: 400,
      minutes: 4,
      prompt:
        'Of 200 seeds in tray 20, 40 had germinated on day 7, 120 on day 14 and 160 on day 21. Mark these three counts as the points *c*. Then draw the line *r* below which the tray would be sown again: 70 % of the seeds.',
      content: {
        asked: {
          x: { from: '0', to: '28', step: '7', snaps: 7, label: 'day' },
          y: { from: '0', to: '200', step: '40', snaps: 2, label: 'germinated' },
          objects: [
            { key: 'c', text: 'points c', sort: 'points', count: 3 },
            { key: 'r', text: 'line r', sort: 'line', count: null },
          ],
        },
        key: {
          objects: {
            c: {
              points: [
                ['7', '40'],
                ['14', '120'],
                ['21', '160'],
              ],
              closed: false,
              boundary: 'solid',
              side: null,
            },
            // 70 % of 200 seeds are 140.
            r: {
              points: [
                ['0', '140'],
                ['28', '140'],
              ],
              closed: false,
              boundary: 'solid',
              side: null,
            },
          },
          tolerance: {},
        },
      },
    },
  ],
};

export const coldRange: Draft = {
  key: 'cold-range',
  title: 'Cold enough',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'number-line',
      marks: 200,
      minutes: 1,
      prompt:
        'The alarm of the cold-store is silent from −20 °C, that figure included, up to but not at −15 °C. Mark all temperatures at which it is silent.',
      content: {
        asked: {
          axis: { from: '-25', to: '0', step: '5', snaps: 5, label: 'Temperature, °C' },
          sorts: ['point', 'interval', 'ray'],
          most: 2,
        },
        key: { pieces: [{ from: '-20', to: '-15', fromOpen: false, toOpen: true }], tolerance: '0' },
      },
    },
  ],
};

const level = (hundredths: number, label: string, says: string) => ({ hundredths, label, says });

export const howManyToSow: Draft = {
  key: 'how-many-to-sow',
  title: 'How many to sow',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'upload',
      marks: 500,
      minutes: 6,
      prompt:
        'A garden asks for 340 young plants of sea holly. In the last test 136 of 200 seeds germinated, and one seedling in five is lost when it is planted out. How many seeds have to be sown? Show your working on paper, and add a picture of it.',
      content: {
        asked: {
          pagesFrom: 1,
          pagesTo: 4,
          text: false,
          criteria: [
            { title: 'Working', hundredths: 300 },
            { title: 'Result', hundredths: 200 },
          ],
        },
        key: {
          rubric: {
            // 340 ÷ 0.8 = 425 seedlings; 136 ÷ 200 = 0.68; 425 ÷ 0.68 = 625
            scheme:
              'Of five seedlings four are kept: $340 \\div 0.8 = 425$ seedlings. The share that germinates is $136 \\div 200 = 0.68$, and $425 \\div 0.68 = 625$ seeds.',
            criteria: [
              {
                key: 'w',
                title: 'Working',
                levels: [
                  level(0, 'none', 'No way to the figure is shown.'),
                  level(100, 'begun', 'One of the two shares is used.'),
                  level(200, 'nearly', 'Both shares are used, with a slip.'),
                  level(300, 'whole', 'Both shares are used, and each step can be followed.'),
                ],
              },
              {
                key: 'r',
                title: 'Result',
                levels: [
                  level(0, 'wrong', 'Another figure, or none.'),
                  level(200, 'right', '625 seeds, or what follows from a slip that is shown.'),
                ],
              },
            ],
          },
        },
      },
    },
  ],
};
