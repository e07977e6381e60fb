import { chooseOne, figure, gapsIn, inOrder, program, startingWith, written } from './contents';
import type { Draft } from './draft';

const rota = {
  key: 'the-rota',
  tabs: [
    {
      title: 'The coffee rota',
      body: `| day | makes the coffee | cups |
|---|---|---|
| Monday | Per | 12 |
| Tuesday | Odile | 9 |
| Wednesday | Bram | 14 |
| Thursday | Hedda | 9 |

On Fridays whoever comes first makes it.`,
    },
  ],
};

const question = (
  key: string,
  title: string,
  part: Omit<Draft['parts'][number], 'key' | 'minutes'>,
  source: Draft['source'] = null,
): Draft => ({ key, title, source, parts: [{ key: 'A', minutes: null, ...part }] });

/** Easy questions about the building's coffee rota: one of each kind there is. */
export const coffeeRota: Draft[] = [
  question(
    'who-on-wednesday',
    'Who on Wednesday?',
    {
      kind: 'choice',
      marks: 100,
      prompt: 'Who makes the coffee on Wednesday?',
      content: chooseOne({
        options: [
          { key: 'per', text: 'Per' },
          { key: 'odile', text: 'Odile' },
          { key: 'bram', text: 'Bram' },
          { key: 'hedda', text: 'Hedda' },
        ],
        right: ['bram'],
      }),
    },
    rota,
  ),
  question(
    'cups-in-all',
    'Cups in all',
    {
      kind: 'number',
      marks: 200,
      prompt: 'How many cups are made from Monday to Thursday?',
      content: figure({
        unit: 'cups',
        within: '0',
        accepted: [{ figure: '44', percent: 100, note: '12 + 9 + 14 + 9' }],
      }),
    },
    rota,
  ),
  question('the-notice', 'The notice', {
    kind: 'gaps',
    marks: 200,
    prompt: 'Complete the notice at the machine.',
    content: gapsIn('Please [[a]] the pot, and switch the machine [[b]] when you leave.', [
      {
        key: 'a',
        accepted: ['rinse', 'empty', 'clean', 'wash'],
        slips: 1,
      },
      { key: 'b', options: ['on', 'off'], right: 'off' },
    ]),
  }),
  question('making-coffee', 'Making coffee', {
    kind: 'order',
    marks: 300,
    prompt: 'Put the steps in the order in which they are done.',
    content: inOrder(
      [
        { key: 'pour', text: 'Pour it into the cups' },
        { key: 'water', text: 'Fill the machine with water' },
        { key: 'wait', text: 'Wait until it has run through' },
        { key: 'powder', text: 'Put powder into the filter' },
      ],
      ['water', 'powder', 'wait', 'pour'],
    ),
  }),
  question('a-kind-word', 'A kind word', {
    kind: 'writing',
    marks: 200,
    prompt: 'Write one or two sentences to the colleague who makes the coffee on Fridays.',
    content: written(
      { from: 5, to: 60 },
      {
        scheme: 'Any friendly sentence will do.',
        criteria: [
          {
            key: 'k',
            title: 'Kindness',
            levels: [
              { hundredths: 0, label: 'curt', says: 'Nothing kind is said.' },
              { hundredths: 200, label: 'kind', says: 'Whoever reads it is glad to have made the coffee.' },
            ],
          },
        ],
      },
    ),
  }),
  question('pots-needed', 'Pots needed', {
    kind: 'code',
    marks: 300,
    prompt:
      'A pot holds eight cups. Write `pots(cups)`: how many pots are needed for that many cups. In Python `-(-a // b)` divides and rounds up, in JavaScript `Math.ceil(a / b)`.',
    content: program({
      way: {
        is: 'function',
        name: 'pots',
        parameters: [{ name: 'cups', type: 'whole' }],
        returns: 'whole',
      },
      languages: [
        startingWith('python', 'def pots(cups):\n    return 0\n'),
        startingWith('javascript', 'function pots(cups) {\n  return 0;\n}\n'),
      ],
      cases: [
        { key: 'monday', title: 'Monday', input: [12], expected: 2, shown: true },
        { key: 'nobody', title: 'nobody there', input: [0], expected: 0, shown: true },
        { key: 'full', title: 'a full pot', input: [8], expected: 1, shown: false },
        { key: 'many', title: 'a feast', input: [41], expected: 6, shown: false },
      ],
      groups: [{ key: 'all', title: 'Further days', cases: ['full', 'many'], counting: 'proportion' }],
    }),
  }),
];
