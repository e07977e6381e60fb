import { chooseTwo, figure, gapsIn } from './contents';
import type { Draft } from './draft';

const trayNote = {
  key: 'tray-14',
  tabs: [
    {
      title: 'Cold-store note',
      body: `Tray 14 holds four lots of sea kale, sown on damp sand on 2 March. After the power dip of 9 March the bay stood at 11 °C for some nine hours before the reserve cooler took over.

Lots K-1 and K-3 had been moved to the north rack the evening before. The count on day 14 was taken by two people, who agreed on every lot but K-4, where one counted split seed coats as germinated.

The archive counts a seed as germinated only when the root is at least as long as the seed.

A lot is :meaning[re-sown]{says="sown again with new seeds of the same lot"} when fewer than 65 % have germinated on day 21, unless more than a tenth are empty.`,
    },
    {
      title: 'Counts, tray 14',
      body: `| Lot | Sown | Day 14 | Day 21 | Empty |
|---|---|---|---|---|
| K-1 | 240 | 131 | 180 | 9 |
| K-2 | 240 | 120 | 171 | 12 |
| K-3 | 200 | 98 | 122 | 31 |
| K-4 | 220 | 148 | 160 | 14 |`,
    },
  ],
};

export const tray14: Draft = {
  key: 'tray-14',
  title: 'Tray 14',
  source: trayNote,
  parts: [
    {
      key: 'A',
      kind: 'choice',
      marks: 200,
      minutes: 2,
      prompt: 'Which **two** lots were in the bay during the warm hours?',
      content: chooseTwo({
        options: ['K-1', 'K-2', 'K-3', 'K-4'].map((text) => ({ key: text.toLowerCase(), text })),
        right: ['k-2', 'k-4'],
      }),
    },
    {
      key: 'B',
      kind: 'number',
      marks: 200,
      minutes: 3,
      prompt: 'By day 21, 171 of 240 seeds in K-2 had germinated. Give the share to one decimal place.',
      explanation:
        '171 ÷ 240 = 0.7125, which is 71.25 %. Rounded half up to one decimal place it is **71.3 %**.',
      content: figure({
        unit: '%',
        demand: { by: 'places', places: 1 },
        accepted: [
          { figure: '71.25', percent: 100, note: '171 ÷ 240 = 71.25 %, to one place.' },
          { figure: '71.2', percent: 50, note: 'Cut off where it should be rounded half up.' },
        ],
      }),
    },
    {
      key: 'C',
      kind: 'gaps',
      marks: 200,
      minutes: 2,
      prompt: 'Complete the entry for the log.',
      content: gapsIn(
        'K-2 is [[a]] because its share is above [[b]] per cent and no more than a [[c]] are empty.',
        [
          { key: 'a', options: ['kept', 're-sown', 'set aside'], right: 'kept' },
          {
            key: 'b',
            accepted: ['65', 'sixty-five'],
          },
          {
            key: 'c',
            accepted: ['tenth'],
            slips: 1,
          },
        ],
      ),
    },
  ],
};

export const theLabel: Draft = {
  key: 'the-label',
  title: 'The label',
  source: trayNote,
  parts: [
    {
      key: 'A',
      kind: 'gaps',
      marks: 300,
      minutes: 3,
      prompt: 'Complete the label for the lot that needs a second count.',
      content: gapsIn(
        'Lot [[a]], sown on damp [[b]] on 2 March. The second count leaves out split seed [[c]].',
        [
          { key: 'a', options: ['K-1', 'K-2', 'K-3', 'K-4'], right: 'K-4' },
          {
            key: 'b',
            accepted: ['sand'],
          },
          {
            key: 'c',
            accepted: ['coats', 'coat'],
            slips: 1,
          },
        ],
      ),
    },
  ],
};

export const moisture: Draft = {
  key: 'moisture',
  title: 'Moisture',
  source: {
    key: 'moisture-card',
    tabs: [
      {
        title: 'Drying card',
        body: `A sample of marram seed is weighed before and after it has been dried in the oven.

| Weighing | Mass, g |
|---|---|
| before | 5.00 |
| after | 4.62 |

*Moisture* is the mass lost as a share of the mass **before** drying.`,
      },
    ],
  },
  parts: [
    {
      key: 'A',
      kind: 'number',
      marks: 200,
      minutes: 2,
      prompt: 'How much mass was lost?',
      content: figure({
        unit: 'g',
        within: '0.001',
        accepted: [{ figure: '0.38', percent: 100, note: '5.00 g − 4.62 g.' }],
      }),
    },
    {
      key: 'B',
      kind: 'number',
      marks: 200,
      minutes: 3,
      prompt: 'What is the moisture, in per cent, to two significant figures?',
      content: figure({
        unit: '%',
        demand: { by: 'figures', figures: 2 },
        accepted: [
          { figure: '7.6', percent: 100, note: '0.38 ÷ 5.00 = 7.6 %.' },
          { figure: '8.2', percent: 50, note: 'A share of the mass after drying instead of before.' },
        ],
      }),
    },
  ],
};
