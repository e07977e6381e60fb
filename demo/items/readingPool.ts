import type { ItemMeasures } from '../../core/papers/paper';
import { chooseOne } from './contents';
import type { Draft } from './draft';
import { readingCalibration } from './readingCalibration';

/* The pool of the Field School's adaptive reading section: forty short questions, some of them about one text. */

export const readingTopics = { f: 'Finding facts', w: 'Words in context', c: 'Drawing conclusions' } as const;
type Topic = keyof typeof readingTopics;

/** Of 1,000 simulated candidates. */
export const READING_PERSONS = 1000;

const OPTIONS = ['a', 'b', 'c', 'd'];

function short(
  [topic, difficulty]: readonly [Topic, ItemMeasures['difficulty']],
  key: string,
  title: string,
  prompt: string,
  options: readonly string[],
): Draft {
  const calibrated = readingCalibration[key];
  return {
    key,
    title,
    source: null,
    measures: {
      topic: readingTopics[topic],
      difficulty,
      calibration: calibrated
        ? { a: calibrated[0], thresholds: [calibrated[1]], persons: READING_PERSONS }
        : null,
    },
    parts: [
      {
        key: 'A',
        kind: 'choice',
        marks: 100,
        minutes: 1,
        prompt,
        // The right answer stands first here; each form has an order of its own.
        content: chooseOne({
          options: options.map((text, i) => ({ key: OPTIONS[i]!, text })),
          right: ['a'],
          shuffle: true,
        }),
      },
    ],
  };
}

/** Questions about one text, which are asked together. */
const about = (key: string, title: string, body: string, questions: readonly Draft[]): Draft[] =>
  questions.map((question) => ({ ...question, source: { key, tabs: [{ title, body }] } }));

const nightFrost = about(
  'night-frost',
  'A cold night',
  'On Tuesday evening the sky over the nursery was clear and there was no wind. Ilka covered the seedlings of sea kale with cloth, but left the thrift open. In the morning there was ice on the water barrels. None of the kale was damaged. Of the thrift, which is used to ledges in the wind, not one leaf was brown either.',
  [
    short(['f', 1], 'frost-covered', 'What Ilka covered', 'What did Ilka cover?', [
      'The sea kale',
      'The thrift',
      'The water barrels',
      'All of the seedlings',
    ]),
    short(['c', 3], 'frost-thrift', 'The thrift', 'What does the text suggest about thrift?', [
      'It stands a light frost without a cover.',
      'It needs more care than sea kale.',
      'It grows only in pots.',
      'It had been moved indoors.',
    ]),
  ],
);

const borrowedLadder = about(
  'borrowed-ladder',
  'The ladder',
  'The archive lends its long ladder to the harbour office on weekdays. Whoever takes it signs the book beside the door and writes the hour. When it had not come back by Friday, Tomas looked in the book. The last line had a name but no hour. He rang the harbour office, where nobody of that name had ever worked.',
  [
    short(['f', 2], 'ladder-book', 'The book', 'What was missing in the last line of the book?', [
      'The hour',
      'The name',
      'The day',
      'The office',
    ]),
    short(['c', 4], 'ladder-who', 'Who took it', 'What can Tomas be sure of?', [
      'The line does not tell him who has the ladder.',
      'The harbour office has kept the ladder.',
      'Somebody from the archive took the ladder.',
      'The ladder was taken on Friday.',
    ]),
  ],
);

const saltTest = about(
  'salt-test',
  'Salt and seed',
  'Two trays of sea aster were watered for three weeks, one with fresh water and one with water from the harbour. After one week the fresh tray had more seedlings. After three weeks both had the same number. The keeper concluded that salt “holds the seed back, but does it no lasting harm”. A visitor objected that nobody had looked at the seedlings after the third week.',
  [
    short(['f', 2], 'salt-week-one', 'After one week', 'Which tray had more seedlings after one week?', [
      'The one with fresh water',
      'The one with harbour water',
      'Both had the same number',
      'The text does not say',
    ]),
    short(
      ['c', 4],
      'salt-visitor',
      'The visitor',
      'What part of the keeper’s sentence does the visitor doubt?',
      [
        'That there is no lasting harm',
        'That salt holds the seed back',
        'That the water came from the harbour',
        'That there were two trays',
      ],
    ),
    short(['w', 3], 'salt-hold-back', '“Holds back”', 'What does “holds the seed back” mean here?', [
      'makes it grow later',
      'keeps it from falling',
      'stops it for ever',
      'stores it safely',
    ]),
  ],
);

const singles: Draft[] = [
  short(
    ['f', 1],
    'opening-hours',
    'Opening hours',
    '“The reading room opens at nine, and at eleven on Mondays.” When does it open on a Tuesday?',
    ['At nine', 'At eleven', 'At ten', 'It stays closed'],
  ),
  short(
    ['f', 1],
    'red-label',
    'The red label',
    '“A red label means that a jar must be dried again before it is stored.” What is done with a jar with a red label?',
    ['It is dried again.', 'It is stored at once.', 'It is thrown away.', 'It is weighed.'],
  ),
  short(
    ['f', 1],
    'two-keys',
    'Two keys',
    '“The cold store has two keys: Mara has one, and one hangs in the office.” Where is the second key?',
    ['In the office', 'In the cold store', 'With Mara', 'With the guard'],
  ),
  short(['w', 1], 'damp', '“Damp”', '“Keep the sand damp, never wet.” What is damp sand?', [
    'a little wet',
    'quite dry',
    'very cold',
    'full of water',
  ]),
  short(
    ['w', 1],
    'sort-out',
    '“Sort out”',
    '“Sort out the empty seeds before you count.” What are you to do with the empty seeds?',
    ['take them away from the others', 'count them first', 'plant them', 'break them open'],
  ),
  short(
    ['c', 1],
    'muddy-boots',
    'Boots',
    '“There were four pairs of muddy boots at the door, and voices in the kitchen.” What is likely?',
    [
      'Some people have come in from outside.',
      'Nobody is in the house.',
      'Somebody is selling boots.',
      'The kitchen is being painted.',
    ],
  ),
  short(
    ['f', 2],
    'third-shelf',
    'The third shelf',
    '“Jars from the north go on the upper two shelves. Those from the islands stand below them, and those from the south at the bottom.” Where do jars from the islands stand?',
    [
      'Between those from the north and those from the south',
      'At the top',
      'At the bottom',
      'On the upper two shelves',
    ],
  ),
  short(
    ['f', 2],
    'boat-times',
    'The boat',
    '“The boat leaves at 8.10 and 14.30; in winter the second one leaves an hour earlier.” When does the second boat leave in winter?',
    ['At 13.30', 'At 14.30', 'At 7.10', 'At 15.30'],
  ),
  short(
    ['w', 2],
    'by-and-large',
    '“By and large”',
    '“By and large the harvest was good.” What does the writer say?',
    [
      'It was good on the whole.',
      'It was larger than ever.',
      'It was good near the coast only.',
      'It was bad at first.',
    ],
  ),
  short(['w', 2], 'scarce', '“Scarce”', '“By May, clean sand was scarce.” What does that mean?', [
    'There was little of it.',
    'It was expensive to clean.',
    'There was plenty of it.',
    'Nobody wanted it.',
  ]),
  short(
    ['w', 2],
    'turn-down',
    '“Turn down”',
    '“They turned down the offer of a second greenhouse.” What did they do?',
    ['They said no to it.', 'They made it cheaper.', 'They built it lower.', 'They forgot about it.'],
  ),
  short(
    ['c', 2],
    'the-lamp',
    'The lamp',
    '“When she came back the lamp was warm, though the switch was off.” What had probably happened?',
    [
      'Somebody had used the lamp not long before.',
      'The lamp was broken.',
      'The sun had risen.',
      'She had left it on.',
    ],
  ),
  short(
    ['c', 2],
    'fewer-visitors',
    'Visitors',
    '“In the weeks with rain we had half as many visitors, but they stayed twice as long.” What follows?',
    [
      'Together they stayed about as many hours as before.',
      'More people came when it rained.',
      'Nobody stays long in good weather.',
      'Rain keeps all visitors away.',
    ],
  ),
  short(
    ['f', 3],
    'who-may-lend',
    'Lending',
    '“Only the keeper may lend seed; in her absence the deputy may lend up to ten grams, and anything beyond that waits.” The keeper is ill. Somebody asks for twelve grams. What happens?',
    [
      'The request waits until she is back.',
      'The deputy lends twelve grams.',
      'The deputy lends ten grams and two later.',
      'The request is refused for good.',
    ],
  ),
  short(
    ['f', 3],
    'except-holly',
    'Except holly',
    '“All species but holly are counted on day 7, and all but thrift on day 28.” Which of these is counted on both days?',
    ['Kale', 'Holly', 'Thrift', 'None of them'],
  ),
  short(
    ['w', 3],
    'make-do',
    '“Make do”',
    '“We had to make do with last year’s labels.” What does the writer tell us?',
    [
      'There were no better labels to be had.',
      'The old labels were repaired.',
      'New labels were made in time.',
      'Labels are not needed.',
    ],
  ),
  short(['w', 3], 'at-odds', '“At odds”', '“The two counts are at odds.” What is the matter with them?', [
    'They do not agree.',
    'They are both uneven.',
    'They are too high.',
    'They were made by chance.',
  ]),
  short(
    ['w', 3],
    'anything-but',
    '“Anything but”',
    '“The way to the ledges is anything but safe.” How safe is it?',
    ['Not safe at all', 'Perfectly safe', 'Safe for most people', 'Safe but for one place'],
  ),
  short(
    ['c', 3],
    'not-until',
    'Not until',
    '“Not until the third letter did the ministry answer.” How many letters had been sent before the answer?',
    ['Three', 'Two', 'Four', 'It cannot be told'],
  ),
  short(
    ['c', 3],
    'unless',
    'Unless',
    '“Unless it is raining, the flag is up when the archive is open.” The flag is not up, and it is dry. What follows?',
    ['The archive is closed.', 'The archive is open.', 'It has just rained.', 'Nothing can be told.'],
  ),
  short(
    ['f', 4],
    'former-latter',
    'The former',
    '“Of drying and freezing, the former is cheaper and the latter lasts longer, and we do the one only where we cannot afford the other.” When do they dry seed?',
    ['When they cannot pay for freezing', 'When it has to last long', 'Whenever it is cheaper', 'Never'],
  ),
  short(
    ['w', 4],
    'qualified',
    '“Qualified”',
    '“She gave the plan her qualified approval.” How did she approve of it?',
    ['with some reservations', 'as an expert', 'in writing', 'without any doubt'],
  ),
  short(
    ['w', 4],
    'table-it',
    '“Spare”',
    '“The report is spare, and the better for it.” What does the writer like about the report?',
    [
      'It has no more words than it needs.',
      'There is another copy of it.',
      'It is kind to everybody.',
      'It was written in free time.',
    ],
  ),
  short(
    ['c', 4],
    'some-not-all',
    'Some and all',
    '“No jar without a label is on the shelf. Some of the jars from the islands have no label.” What must be true?',
    [
      'Some jars from the islands are not on the shelf.',
      'No jar from the islands is on the shelf.',
      'All jars with a label are on the shelf.',
      'Jars without a label are from the islands.',
    ],
  ),
  short(
    ['c', 4],
    'hardly-fair',
    'Hardly fair',
    '“To blame the guard for the open window would be hardly fair to a man who was not told that there was one.” What does the writer think?',
    [
      'The guard is not to blame.',
      'The guard opened the window.',
      'The guard should have looked.',
      'Nobody knew of the window.',
    ],
  ),
  short(
    ['f', 5],
    'double-negative',
    'Reports in time',
    '“None of the reports that came in time failed to mention the flood.” What does the sentence say of these reports?',
    [
      'They all mentioned the flood.',
      'None of them mentioned the flood.',
      'Some of them came too late.',
      'Some of them mentioned the flood.',
    ],
  ),
  short(
    ['w', 5],
    'beg-the-question',
    '“Begs the question”',
    '“The proof that cold does no harm begs the question: it counts only seeds that lived.” What is wrong with the proof?',
    [
      'It takes for granted what it should show.',
      'It raises another interesting question.',
      'It is politely worded.',
      'It counts too few seeds.',
    ],
  ),
  short(
    ['w', 5],
    'sanguine',
    '“Sanguine”',
    '“The keeper was sanguine about the storm; her deputy, who had seen the roof, was not.” How did the deputy feel?',
    ['worried', 'hopeful', 'angry with the keeper', 'tired'],
  ),
  short(
    ['c', 5],
    'as-many-again',
    'As many again',
    '“We sowed forty. Had half as many again come up as did, we should have had the thirty we wanted.” How many came up?',
    ['Twenty', 'Fifteen', 'Thirty', 'Ten'],
  ),
  short(
    ['c', 5],
    'only-if',
    'Only if',
    '“A visitor is let into the store only if a keeper is there, and a keeper is there only if the alarm is off.” A visitor is in the store. What follows?',
    ['The alarm is off.', 'The alarm is on.', 'The alarm went off.', 'Nothing about the alarm.'],
  ),
  short(
    ['c', 5],
    'rather-than',
    'What it argues against',
    '“Those who say that old records mislead us forget that we know this only from old records.” What does the writer do?',
    [
      'Shows that the claim relies on what it rejects',
      'Proves that old records are right',
      'Agrees that old records mislead',
      'Asks for newer records',
    ],
  ),
  short(
    ['f', 5],
    'save-for',
    'Save for',
    '“Save for the two that had been opened, none of the nine boxes was wet.” How many boxes can have been wet?',
    ['Two at most', 'Seven at least', 'Nine', 'None'],
  ),
  short(
    ['f', 3],
    'every-other',
    'Every other week',
    '“The trays are turned every other week, beginning with the first week of March.” In which week are they turned next?',
    ['In the third', 'In the second', 'In the fourth', 'In the fifth'],
  ),
];

/** Forty questions; those about one text follow each other. */
export const readingPool: readonly Draft[] = [...nightFrost, ...borrowedLadder, ...saltTest, ...singles];
