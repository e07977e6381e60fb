import { chooseOne, figure, written } from './contents';
import type { Draft } from './draft';

/* The last three sections of the Field School's paper: figures and graphs, writing by hand and by keys, and two steps. */

type Part = Draft['parts'][number];

const question = (key: string, title: string, part: Omit<Part, 'key'>): Draft => ({
  key,
  title,
  source: null,
  parts: [{ key: 'A', ...part }],
});
const level = (hundredths: number, label: string, says: string) => ({ hundredths, label, says });

export const openPath = question('open-path', 'When the path is open', {
  kind: 'number-line',
  marks: 200,
  minutes: 2,
  prompt:
    'The path along the shore is under water when the tide is at 1.5 m or higher. The tide never falls below −1 m. Mark all heights of the tide at which the path is open.',
  content: {
    asked: {
      axis: { from: '-2', to: '4', step: '1', snaps: 2, label: 'Height of the tide, m' },
      sorts: ['point', 'interval', 'ray'],
      most: 2,
    },
    key: { pieces: [{ from: '-1', to: '1.5', fromOpen: false, toOpen: true }], tolerance: '0' },
  },
});

export const fencedBed = question('fenced-bed', 'The fenced bed', {
  kind: 'expression',
  marks: 300,
  minutes: 3,
  prompt:
    'A bed for seedlings is $x$ m wide and 3 m longer than wide. A path of 1 m runs around it. Write the area of bed and path together, in square metres, multiplied out.',
  content: {
    asked: {
      before: '',
      after: 'm²',
      tools: ['fractions', 'powers', 'brackets'],
      list: false,
      letters: [],
      functions: [],
      form: 'expanded',
    },
    key: {
      // (x + 2)(x + 5) = x² + 7x + 10
      accepted: [
        { latex: 'x^2+7x+10', percent: 100, note: 'A metre is added on each side: (x + 2)(x + 5).' },
      ],
      otherForm: 50,
      domain: {},
      log: 10,
    },
  },
});

export const theSlope = question('the-slope', 'Up the dune', {
  kind: 'plot',
  marks: 300,
  minutes: 4,
  prompt:
    'At the foot of a dune, at 0 m, the ground is 2 m high. It rises evenly by 1 m for every 2 m of the way. Draw the line *d* of the ground, and mark the point *T* where the way is 6 m.',
  content: {
    asked: {
      x: { from: '0', to: '10', step: '1', snaps: 1, label: 'way, m' },
      y: { from: '0', to: '8', step: '1', snaps: 1, label: 'height, m' },
      objects: [
        { key: 'd', text: 'line d', sort: 'line', count: null },
        { key: 't', text: 'point T', sort: 'point', count: null },
      ],
    },
    key: {
      objects: {
        // 2 + 6 ÷ 2 = 5
        d: {
          points: [
            ['0', '2'],
            ['6', '5'],
          ],
          closed: false,
          boundary: 'solid',
          side: null,
        },
        t: { points: [['6', '5']], closed: false, boundary: 'solid', side: null },
      },
      tolerance: {},
    },
  },
});

export const seedsForTheStrip = question('seeds-for-the-strip', 'Seed for a strip of shore', {
  kind: 'upload',
  marks: 500,
  minutes: 8,
  prompt:
    'A strip of shore is 24 m long and 1.5 m wide. 9 plants are to stand on each square metre, and three of four seeds become a plant. How many seeds are needed? Work it out on paper and add a picture of it, or type your working.',
  content: {
    asked: {
      pagesFrom: 1,
      pagesTo: 3,
      text: true,
      criteria: [{ title: 'Working', hundredths: 500 }],
    },
    key: {
      rubric: {
        // 24 × 1.5 = 36; 36 × 9 = 324; 324 ÷ 0.75 = 432
        scheme: 'The area is 36 m², so 324 plants are wanted, and $324 \\div 0.75 = 432$ seeds are needed.',
        criteria: [
          {
            key: 'w',
            title: 'Working',
            levels: [
              level(0, 'none', 'No step is shown.'),
              level(200, 'begun', 'The area, or the number of plants, is worked out.'),
              level(400, 'nearly', 'All steps are shown, with a slip.'),
              level(500, 'whole', 'All steps are shown, and the figure is right.'),
            ],
          },
        ],
      },
    },
  },
});

export const askTheKeeper = question('ask-the-keeper', 'A letter to the keeper', {
  kind: 'writing',
  marks: 400,
  minutes: 8,
  prompt:
    'You want to collect seed on an island in June. Write to its keeper: who you are, what you want to collect, and what you ask for. 50 to 120 words.',
  content: written(
    { from: 50, to: 120 },
    {
      scheme:
        'Who writes, which species and how much, the day, and a clear request, in a tone that suits a stranger.',
      criteria: [
        {
          key: 'c',
          title: 'Content',
          levels: [
            level(0, 'missing', 'The keeper learns neither what nor when.'),
            level(100, 'some', 'One of who, what, when and the request is missing.'),
            level(200, 'all', 'Who, what, when and the request are there.'),
          ],
        },
        {
          key: 't',
          title: 'Tone',
          levels: [
            level(0, 'unsuited', 'It orders, or cannot be followed.'),
            level(100, 'mixed', 'Mostly suited to a stranger.'),
            level(200, 'suited', 'Polite, plain and exact.'),
          ],
        },
      ],
    },
  ),
});

export const traysToFill = question('trays-to-fill', 'Trays to fill', {
  kind: 'number',
  marks: 200,
  minutes: 2,
  prompt: 'You bring back 450 seeds. A tray takes 60. How many trays do you need?',
  content: figure({
    unit: 'trays',
    within: '0',
    accepted: [
      { figure: '8', percent: 100, note: '450 ÷ 60 = 7.5, and the last half needs a tray too.' },
      { figure: '7.5', percent: 50, note: 'There is no half tray.' },
    ],
  }),
});

export const theLastTray = question('the-last-tray', 'The last tray', {
  kind: 'choice',
  marks: 100,
  minutes: 1,
  prompt: 'Eight trays are used, and the last one is not full. How many seeds are in it?',
  content: chooseOne({
    options: [
      { key: 'a', text: '7' },
      { key: 'b', text: '30' },
      { key: 'c', text: '45' },
      { key: 'd', text: '50' },
    ],
    // 450 − 7 × 60 = 30
    right: ['b'],
  }),
});
