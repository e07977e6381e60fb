import { coffeeRota } from './coffeeRota';
import type { Draft } from './draft';
import { cupsInAll, whoDrinks } from './galleryPrograms';

const entries = (texts: Readonly<Record<string, string>>) =>
  Object.entries(texts).map(([key, text]) => ({ key, text }));

type Part = Draft['parts'][number];

const question = (
  key: string,
  title: string,
  part: Omit<Part, 'key' | 'minutes'>,
  source: Draft['source'] = null,
): Draft => ({ key, title, source, parts: [{ key: 'A', minutes: null, ...part }] });

const theDoor = question('gallery-door', 'The door', {
  kind: 'grid-choice',
  marks: 300,
  prompt: 'When is each of these done?',
  content: {
    asked: {
      statements: entries({
        lights: 'The lights of the cold-store are switched off',
        coats: 'Coats are handed out',
        book: 'The visitors’ book is signed',
      }),
      categories: entries({ in: 'Going in', out: 'Going out' }),
      mode: 'one',
      rule: 'all-or-nothing',
      mayStayEmpty: false,
      shuffle: false,
    },
    key: { rows: { lights: ['out'], coats: ['in'], book: ['in'] } },
  },
});

const theShelves = question('gallery-shelves', 'The shelves', {
  kind: 'sort',
  marks: 500,
  prompt: 'Where does each of these belong? One of them belongs in neither place.',
  content: {
    asked: {
      chips: entries({
        kale: 'Dry seed of sea kale',
        hazel: 'Fresh hazelnuts',
        rush: 'Dry seed of Baltic rush',
        acorn: 'Fresh acorns',
        cup: 'A coffee cup',
      }),
      fromSource: false,
      bins: [
        { key: 'cold', text: 'Cold-store', limit: null },
        { key: 'damp', text: 'Damp sand', limit: 2 },
      ],
      often: false,
      leftOver: true,
      shuffle: true,
    },
    key: { bins: { cold: ['kale', 'rush'], damp: ['hazel', 'acorn'] } },
  },
});

const theTools = question('gallery-tools', 'The instruments', {
  kind: 'match',
  marks: 300,
  prompt: 'What is each instrument read in?',
  content: {
    asked: {
      left: entries({ scale: 'The balance', dial: 'The thermometer', lamp: 'The light meter' }),
      right: entries({ grams: 'grams', degrees: 'degrees Celsius', lux: 'lux', litres: 'litres' }),
      once: true,
      leftOver: false,
      shuffle: true,
    },
    key: { pairs: { scale: 'grams', dial: 'degrees', lamp: 'lux' } },
  },
});

const CAUSES = {
  pot: 'the pot had been left on the plate',
  switch: 'somebody had pressed the switch twice',
  milk: 'there was no milk in the kitchen',
};
const EFFECTS = {
  smell: 'the whole corridor smelled of burnt coffee',
  meeting: 'the meeting began at ten',
};
const phrases = (of: Readonly<Record<string, string>>) => entries(of);

const theMorning = question('gallery-morning', 'A bad morning', {
  kind: 'select-text',
  marks: 200,
  prompt:
    'Choose in each text the one phrase that tells of the burnt pot: what caused it, and what came of it.',
  content: {
    asked: {
      passages: [
        {
          key: 'cause',
          title: 'What had happened',
          body: `On Tuesday :phrase[${CAUSES.pot}]{#pot} all night. On Monday :phrase[${CAUSES.switch}]{#switch}, and :phrase[${CAUSES.milk}]{#milk}.`,
          limit: 1,
          phrases: phrases(CAUSES),
        },
        {
          key: 'effect',
          title: 'What came of it',
          body: `In the morning :phrase[${EFFECTS.smell}]{#smell}, although :phrase[${EFFECTS.meeting}]{#meeting} as on any day.`,
          limit: 1,
          phrases: phrases(EFFECTS),
        },
      ],
    },
    key: { right: ['pot', 'smell'] },
  },
});

const theSeed = question('gallery-seed', 'Inside a bean', {
  kind: 'hot-area',
  marks: 200,
  prompt: 'Choose the young root, and the store of food.',
  content: {
    asked: {
      picture:
        '![A bean, cut open: a thick outer line, two large halves, a small folded part and a short tip](bean.png)',
      mode: 'choose',
      areas: [
        {
          key: 'coat',
          text: 'The thick outer line, at the lower right',
          shape: { is: 'ellipse', x: 860, y: 690, across: 60, down: 90 },
        },
        {
          key: 'store',
          text: 'The large pale half',
          shape: { is: 'ellipse', x: 600, y: 480, across: 170, down: 190 },
        },
        {
          key: 'root',
          text: 'The short tip at the left edge',
          shape: {
            is: 'polygon',
            points: [
              { x: 110, y: 480 },
              { x: 230, y: 470 },
              { x: 250, y: 600 },
              { x: 150, y: 650 },
            ],
          },
        },
        {
          key: 'leaf',
          text: 'The small folded part',
          shape: { is: 'rectangle', x: 240, y: 330, width: 130, height: 140 },
        },
      ],
      limit: 2,
    },
    key: { right: ['root', 'store'] },
  },
});

const theCurve = question('gallery-curve', 'Cups and days', {
  kind: 'plot',
  marks: 300,
  prompt:
    'Five cups are drunk on day 0, and one cup more on each later day. Draw the line *c* of the cups, the point *P* of day 4, and the half-plane *r* of all places with more than 8 cups.',
  content: {
    asked: {
      x: { from: '0', to: '8', step: '1', snaps: 1, label: 'day' },
      y: { from: '0', to: '12', step: '1', snaps: 1, label: 'cups' },
      objects: [
        { key: 'c', text: 'line c', sort: 'line', count: null },
        { key: 'p', text: 'point P', sort: 'point', count: null },
        { key: 'r', text: 'half-plane r', sort: 'half-plane', count: null },
      ],
    },
    key: {
      objects: {
        c: {
          points: [
            ['0', '5'],
            ['4', '9'],
          ],
          closed: false,
          boundary: 'solid',
          side: null,
        },
        p: { points: [['4', '9']], closed: false, boundary: 'solid', side: null },
        r: {
          points: [
            ['0', '8'],
            ['8', '8'],
          ],
          closed: false,
          boundary: 'dashed',
          side: ['4', '10'],
        },
      },
      tolerance: {},
    },
  },
});

const theFridge = question('gallery-fridge', 'The fridge', {
  kind: 'number-line',
  marks: 200,
  prompt: 'Milk keeps above 0 °C and up to 5 °C. Mark all temperatures at which it keeps.',
  content: {
    asked: {
      axis: { from: '-4', to: '8', step: '1', snaps: 2, label: 'Temperature, °C' },
      sorts: ['point', 'interval', 'ray'],
      most: 2,
    },
    key: { pieces: [{ from: '0', to: '5', fromOpen: true, toOpen: false }], tolerance: '0' },
  },
});

const figures = (key: string, title: string) => ({
  key,
  title,
  sort: 'figure',
  unit: 'g',
  minus: false,
  options: [],
});
const cell = { is: 'entry' };
const fixed = (text: string) => ({ is: 'fixed', text, figure: text.replace(' ', '') });
const total = (formula: string) => ({ is: 'total', formula });
const line = (key: string, title: string, ...cells: (object | null)[]) => ({
  key,
  title,
  strong: key === 'total',
  cells,
});
const right = (name: string, figure: string | null, formula: string | null = null) => ({
  cell: name,
  weight: 1,
  follows: 50,
  by: 'figure',
  right: figure,
  formula,
  tolerance: '0',
});

const theTin = question(
  'gallery-tin',
  'The coffee tin',
  {
    kind: 'table-entry',
    marks: 400,
    prompt: 'Carry the book of the coffee tin on, from the slips in the source.',
    content: {
      asked: {
        caption: 'Coffee in the tin, this week',
        corner: 'Day',
        heads: [
          { text: 'Moved', columns: 2 },
          { text: '', columns: 1 },
        ],
        columns: [figures('in', 'In'), figures('out', 'Out'), figures('held', 'Held')],
        rows: [
          line('start', 'Brought forward', null, null, fixed('640')),
          line('monday', 'Monday, drunk', null, cell, cell),
          line('tuesday', 'Tuesday, new bag', cell, null, cell),
          line('total', 'Total', total('sum(tuesday_in)'), total('sum(monday_out)'), null),
        ],
        mayStayEmpty: false,
      },
      key: {
        cells: [
          right('monday_out', '180'),
          right('monday_held', null, 'start_held - monday_out'),
          right('tuesday_in', '500'),
          right('tuesday_held', null, 'monday_held + tuesday_in'),
        ],
      },
    },
  },
  {
    key: 'gallery-slips',
    tabs: [
      {
        title: 'Slips',
        body: 'On Monday :phrase[180]{#drunk} g were drunk.\n\nOn Tuesday a bag of :phrase[500]{#bag} g was opened and put into the tin.',
      },
    ],
  },
);

const theSheet = question('gallery-sheet', 'A drawing', {
  kind: 'on-paper',
  marks: 200,
  prompt: 'Draw the coffee machine.',
  content: {
    asked: {
      sheet:
        'Use **sheet 1** of the worksheet. Write your reference number at its top and leave it on the table.',
      criteria: [{ title: 'Drawing', hundredths: 200 }],
    },
    key: {
      rubric: {
        scheme: 'Machine, pot and plate can be told apart.',
        criteria: [
          {
            key: 'd',
            title: 'Drawing',
            levels: [
              { hundredths: 0, label: 'no drawing', says: 'The parts cannot be told apart.' },
              { hundredths: 200, label: 'clear', says: 'All three parts can be told apart.' },
            ],
          },
        ],
      },
    },
  },
});

const theSum = question('gallery-sum', 'The sum on paper', {
  kind: 'upload',
  marks: 200,
  prompt:
    'A packet of coffee holds 500 g, and a pot takes 60 g. How many pots does a packet make, and what is left? Work it out on paper and photograph it, or type it.',
  content: {
    asked: {
      pagesFrom: 1,
      pagesTo: 8,
      text: true,
      criteria: [{ title: 'Working', hundredths: 200 }],
    },
    key: {
      rubric: {
        // 500 = 8 × 60 + 20
        scheme: 'Eight pots, and 20 g are left. The division or the repeated subtraction is shown.',
        criteria: [
          {
            key: 'w',
            title: 'Working',
            levels: [
              { hundredths: 0, label: 'none', says: 'Neither figure is worked out.' },
              { hundredths: 100, label: 'half', says: 'One of the two figures is worked out.' },
              { hundredths: 200, label: 'all', says: 'Both figures are worked out, and it is shown how.' },
            ],
          },
        ],
      },
    },
  },
});

const theFilter = question('gallery-filter', 'The filter', {
  kind: 'expression',
  marks: 200,
  prompt:
    'A filter holds $x + 3$ spoons, and $x - 1$ filters are used. How many spoons are that? Multiply it out.',
  content: {
    asked: {
      before: '',
      after: 'spoons',
      tools: ['fractions', 'powers', 'brackets', 'relations'],
      list: false,
      letters: [],
      functions: [],
      form: 'expanded',
    },
    key: {
      accepted: [{ latex: 'x^2+2x-3', percent: 100, note: '' }],
      otherForm: 50,
      domain: {},
      log: 10,
    },
  },
});

const CAFETERIA = {
  filters: 'the filters are in the blue tin',
  early: 'whoever comes before seven fills the machine',
  window: 'the window looks out on the harbour',
  plate: 'the plate is switched off at four',
};
const cafeteriaNote = {
  key: 'gallery-note',
  tabs: [
    {
      title: 'A note on the door',
      body: `In the kitchen :phrase[${CAFETERIA.filters}]{#filters}, and :phrase[${CAFETERIA.early}]{#early}. From the table :phrase[${CAFETERIA.window}]{#window}. On all days :phrase[${CAFETERIA.plate}]{#plate}.`,
    },
  ],
};

const theNote = question(
  'gallery-note',
  'The note',
  {
    kind: 'select-text',
    marks: 100,
    prompt: 'Choose the phrase in the source that has nothing to do with making coffee.',
    content: {
      asked: {
        passages: [{ key: 'note', title: 'In the note', body: null, limit: 1, phrases: phrases(CAFETERIA) }],
      },
      key: { right: ['window'] },
    },
  },
  cafeteriaNote,
);

const theDuties = question(
  'gallery-duties',
  'Duties and facts',
  {
    kind: 'sort',
    marks: 300,
    prompt: 'Which phrases of the source say what somebody does, and which only say where something is?',
    content: {
      asked: {
        chips: phrases({ early: CAFETERIA.early, filters: CAFETERIA.filters, plate: CAFETERIA.plate }),
        fromSource: true,
        bins: [
          { key: 'duty', text: 'Somebody does it', limit: null },
          { key: 'place', text: 'Where something is', limit: null },
        ],
        often: false,
        leftOver: false,
        shuffle: true,
      },
      key: { bins: { duty: ['early', 'plate'], place: ['filters'] } },
    },
  },
  cafeteriaNote,
);

/** One question of every kind, easy ones, for who wants to try them all. */
export const gallery: Draft[] = [
  ...coffeeRota.map((draft) => ({ ...draft, key: `gallery-${draft.key}` })),
  theDoor,
  theShelves,
  theTools,
  theMorning,
  theSeed,
  theCurve,
  theFridge,
  theFilter,
  theTin,
  theSheet,
  theSum,
  cupsInAll,
  whoDrinks,
  theNote,
  theDuties,
];
