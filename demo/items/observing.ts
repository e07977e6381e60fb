import { chooseOne, chooseTwo, figure, inOrder } from './contents';
import type { Draft } from './draft';

export const partsOfASeed: Draft = {
  key: 'parts-of-a-seed',
  title: 'Parts of a seed',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'choice',
      marks: 100,
      minutes: 1,
      prompt: 'Which part of a seed comes out first when it germinates?',
      explanation:
        'The young root comes out first: it takes up water before there is a leaf that needs it. The archive counts a seed as germinated when the root is as long as the seed.',
      content: chooseOne({
        options: [
          { key: 'root', text: 'The young root' },
          { key: 'leaf', text: 'The first leaf' },
          { key: 'coat', text: 'The seed coat' },
          { key: 'shoot', text: 'The shoot tip' },
        ],
        right: ['root'],
        shuffle: true,
      }),
    },
  ],
};

export const whichTrays: Draft = {
  key: 'which-trays',
  title: 'Which trays?',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'choice',
      marks: 200,
      minutes: 2,
      prompt:
        'A tray is re-sown when **fewer than 65 %** of its seeds have germinated on day 21. Which **two** of these trays are re-sown?',
      explanation:
        'Tray 12: 126 ÷ 200 = 63 %, and tray 14: 57 ÷ 90 = 63.3 %. Both are below 65 %. Tray 11 has 75 %, and tray 13 has 62 ÷ 90 = 68.9 %.',
      content: chooseTwo({
        options: [
          { key: 't11', text: 'Tray 11: 150 of 200' },
          { key: 't12', text: 'Tray 12: 126 of 200' },
          { key: 't13', text: 'Tray 13: 62 of 90' },
          { key: 't14', text: 'Tray 14: 57 of 90' },
        ],
        // 126/200 = 63 %, 57/90 = 63.3 %; the others are 75 % and 68.9 %
        right: ['t12', 't14'],
      }),
    },
  ],
};

export const readingTheDial: Draft = {
  key: 'reading-the-dial',
  title: 'Reading the dial',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'number',
      marks: 200,
      minutes: 2,
      prompt:
        'The dial of bay 3 is marked from −30 °C to 0 °C in steps of 2 °C. The needle stands half-way between the marks for −20 °C and −18 °C. What does it show?',
      content: figure({
        unit: '°C',
        minusPossible: true,
        within: '0.2',
        accepted: [
          { figure: '-19', percent: 100, note: '' },
          { figure: '-18', percent: 50, note: 'Half a step off.' },
          { figure: '-20', percent: 50, note: 'Half a step off.' },
        ],
      }),
    },
  ],
};

export const aDayOfCounting: Draft = {
  key: 'a-day-of-counting',
  title: 'A day of counting',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'order',
      marks: 300,
      minutes: 3,
      prompt: 'Put the steps of a germination count in the order in which they are done.',
      content: inOrder(
        [
          { key: 'write', text: 'Write the number into the ledger' },
          { key: 'take', text: 'Take the tray out of the bay' },
          { key: 'back', text: 'Put the tray back and close the bay' },
          { key: 'read', text: 'Read the lot from the label' },
          { key: 'count', text: 'Count the seeds whose root is as long as the seed' },
        ],
        ['take', 'read', 'count', 'write', 'back'],
      ),
    },
  ],
};
