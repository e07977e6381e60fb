import { BRIEFING, FILM_DESCRIPTION } from '../media/texts';
import { chooseOne, chooseTwo, figure, gapsIn, inOrder, written } from './contents';
import type { Draft } from './draft';

const option = (key: string, text: string) => ({ key, text });

export const theBriefing: Draft = {
  key: 'the-briefing',
  title: 'The briefing',
  introduction: 'You hear what the warden says to the three groups in the morning.',
  source: {
    key: 'briefing',
    tabs: [
      {
        title: 'Briefing',
        body: `:::audio{file=briefing.mp3 title="Morning briefing" plays=2}
${BRIEFING.join('\n\n')}
:::`,
      },
    ],
  },
  parts: [
    {
      key: 'A',
      kind: 'choice',
      marks: 200,
      minutes: 2,
      prompt: 'Where does group three begin?',
      content: chooseOne({
        options: [
          option('beach', 'At the north beach'),
          option('dunes', 'In the dunes'),
          option('store', 'At the seed store'),
          option('spring', 'At the spring'),
        ],
        right: ['store'],
      }),
    },
    {
      key: 'B',
      kind: 'number',
      marks: 200,
      minutes: 2,
      prompt: 'How much of the seed of one plant may be taken at most?',
      content: figure({ unit: '%', accepted: [{ figure: '20', percent: 100, note: 'Twenty per cent.' }] }),
    },
    {
      key: 'C',
      kind: 'gaps',
      marks: 200,
      minutes: 2,
      prompt: 'Complete the note on the board.',
      content: gapsIn(
        'Seed goes into [[a]] bags. Take the [[b]] record card. Off the north beach by [[c]].',
        [
          { key: 'a', accepted: ['paper'], slips: 1 },
          { key: 'b', options: ['white', 'yellow', 'red'], right: 'yellow' },
          { key: 'c', options: ['12:30', '13:00', '13:10', '15:30'], right: '12:30' },
        ],
      ),
    },
  ],
};

export const theMap: Draft = {
  key: 'the-map',
  title: 'The map',
  source: {
    key: 'map',
    tabs: [
      {
        title: 'Map',
        body: `::picture[A map of an island, north at the top. A long sandy beach lies along the north coast. Dunes lie in the west. The seed store is in the middle, a spring in the south-east. Dotted paths lead from the seed store to the dunes, to the beach and to the spring. A scale of 500 metres is as long as a sixth of the map.]{file=map.png caption="Hollin Reach, with its paths"}`,
      },
    ],
  },
  parts: [
    {
      key: 'A',
      kind: 'choice',
      marks: 200,
      minutes: 2,
      prompt: 'Which **two** places have a path of their own to the seed store?',
      content: chooseTwo({
        options: [
          option('spring', 'The spring'),
          option('south', 'The south coast'),
          option('dunes', 'The dunes'),
          option('east', 'The east cape'),
        ],
        right: ['spring', 'dunes'],
      }),
    },
  ],
};

export const coastalPlants: Draft = {
  key: 'coastal-plants',
  title: 'Three plants of the shore',
  source: {
    key: 'shore-plants',
    tabs: [
      {
        title: 'Sea kale',
        body: `# Sea kale

Sea kale grows on :meaning[shingle]{says="small round stones on a beach"} above the line of the highest tides. :phrase[Its seeds are carried in a hard, corky case]{#case} that floats for weeks.

The case has to be opened before sowing. Seeds that are sown in the case :meaning[germinate]{says="begin to grow: the root comes out of the seed"} a year later, if at all.

:::lines{start=1}
Sow in March, on damp sand.
Keep at 15 °C by day and 5 °C by night.
Count on days 7, 14 and 21.

A seed counts when its root is as long as the seed.
:::`,
      },
      {
        title: 'Sea holly',
        body: `# Sea holly

Sea holly stands in the dunes. :phrase[Its seeds need eight weeks of damp cold]{#cold} before they are moved to a warm place.

| Weeks of cold | Germinated of 50 | Share |
|--:|--:|--:|
| 0 | 2 | 4 % |
| 4 | 19 | 38 % |
| 8 | 41 | 82 % |
| 12 | 43 | 86 % |

Longer cold does not harm the seeds, but helps little.`,
      },
      {
        title: 'Thrift',
        body: `# Thrift

Thrift grows on ledges. :phrase[Its seeds germinate at once]{#once} when they are kept damp, in the light, at about 18 °C.

The share that has germinated is

$$
p = \\frac{n}{N} \\times 100\\,\\%
$$

where $n$ is the number of seeds with a root and $N$ that of all seeds which are not empty.`,
      },
    ],
  },
  parts: [
    {
      key: 'A',
      kind: 'choice',
      marks: 200,
      minutes: 2,
      prompt: 'Which plant needs damp cold before it is sown?',
      content: chooseOne({
        options: [option('kale', 'Sea kale'), option('holly', 'Sea holly'), option('thrift', 'Thrift')],
        right: ['holly'],
      }),
    },
    {
      key: 'B',
      kind: 'number',
      marks: 300,
      minutes: 3,
      prompt: 'Of 60 seeds of thrift, 6 were empty and 27 had a root. What share has germinated?',
      content: figure({
        unit: '%',
        accepted: [{ figure: '50', percent: 100, note: '27 ÷ (60 − 6) = 50 %.' }],
      }),
    },
  ],
};

export const threeLots: Draft = {
  key: 'three-lots',
  title: 'Three lots',
  source: {
    key: 'germination-charts',
    tabs: [
      {
        title: 'Over time',
        body: `:::chart{kind=line title="Germination of three lots" across="Day" up="Germinated, %" description="Three lines from day 0 to day 28. Lot S-1 rises early and stays at 74. Lot S-2 rises evenly to 82. Lot S-3 stays below 10 until day 14 and reaches 61."}
| Day | S-1 | S-2 | S-3 |
|--:|--:|--:|--:|
| 0 | 0 | 0 | 0 |
| 7 | 48 | 21 | 2 |
| 14 | 70 | 43 | 9 |
| 21 | 74 | 66 | 44 |
| 28 | 74 | 82 | 61 |
:::`,
      },
      {
        title: 'Empty seeds',
        body: `:::chart{kind=bar title="Empty seeds in each lot" across="Lot" up="Seeds" description="Two bars for each lot. Before cleaning: S-1 18, S-2 31, S-3 24. After cleaning: S-1 5, S-2 6, S-3 20."}
| Lot | Before cleaning | After cleaning |
|---|--:|--:|
| S-1 | 18 | 5 |
| S-2 | 31 | 6 |
| S-3 | 24 | 20 |
:::`,
      },
    ],
  },
  parts: [
    {
      key: 'A',
      kind: 'order',
      marks: 300,
      minutes: 3,
      prompt: 'Put the lots in order by their share on day 14, the highest first.',
      content: inOrder(
        [
          { key: 'c', text: 'S-3' },
          { key: 'b', text: 'S-2' },
          { key: 'a', text: 'S-1' },
        ],
        ['a', 'b', 'c'],
      ),
    },
    {
      key: 'B',
      kind: 'choice',
      marks: 200,
      minutes: 2,
      prompt: 'In which lot did cleaning help least?',
      content: chooseOne({
        options: [option('s-1', 'S-1'), option('s-2', 'S-2'), option('s-3', 'S-3')],
        right: ['s-3'],
      }),
    },
  ],
};

const weighing = (key: string, title: string, prompt: string, grams: string, note: string): Draft => ({
  key,
  title,
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'number',
      marks: 200,
      minutes: 2,
      prompt,
      content: figure({
        unit: 'g',
        demand: { by: 'places', places: 1 },
        accepted: [{ figure: grams, percent: 100, note }],
      }),
    },
  ],
});

export const oneBag = weighing(
  'one-bag',
  'One bag',
  'A bag with seed weighs 31.7 g. What does the seed weigh? The rules for collecting say what an empty bag weighs.',
  '29.3',
  '31.7 − 2.4 = 29.3.',
);

export const fourBags = weighing(
  'four-bags',
  'Four bags',
  'Four bags weigh 12.4 g, 4.6 g, 9.9 g and 20.1 g. What does the seed weigh in those that are counted?',
  '35.2',
  'The bag of 4.6 g is not counted: 12.4 + 9.9 + 20.1 − 3 × 2.4 = 35.2.',
);

export const theTray: Draft = {
  key: 'the-tray',
  title: 'A tray over three weeks',
  source: {
    key: 'tray-film',
    tabs: [
      {
        title: 'Film',
        body: `::video{file=tray.webm captions=tray.vtt title="A tray of sea kale" description="${FILM_DESCRIPTION}"}`,
      },
    ],
  },
  parts: [
    {
      key: 'A',
      kind: 'number',
      marks: 200,
      minutes: 2,
      prompt: 'How many seeds have germinated by day 14?',
      content: figure({ accepted: [{ figure: '7', percent: 100, note: 'Seven have a root.' }] }),
    },
    {
      key: 'B',
      kind: 'writing',
      marks: 600,
      minutes: 8,
      prompt: 'Describe what happens on the tray from day 0 to day 21. 40 to 120 words.',
      content: written(
        { from: 40, to: 120 },
        {
          scheme:
            'The numbers on each day, the two empty seeds, and that the last seed with a root came after day 14.',
          criteria: [
            {
              key: 'f',
              title: 'Facts',
              levels: [
                { hundredths: 0, label: 'none', says: 'No count is given.' },
                { hundredths: 200, label: 'some', says: 'Some counts and days.' },
                { hundredths: 400, label: 'all', says: 'All counts, with the days and the empty seeds.' },
              ],
            },
            {
              key: 'l',
              title: 'Language',
              step: 50,
              levels: [
                { hundredths: 0, label: 'hard to follow', says: 'A reader has to guess.' },
                { hundredths: 100, label: 'readable', says: 'It can be followed.' },
                { hundredths: 200, label: 'plain, exact', says: 'Plain and exact.' },
              ],
            },
          ],
        },
      ),
    },
  ],
};
