import { program, startingWith, written } from './contents';
import type { Draft } from './draft';

const level = (marks: number, label: string, says: string) => ({ hundredths: marks * 100, label, says });

export const incidentNote: Draft = {
  key: 'incident-note',
  title: 'Incident note',
  source: {
    key: 'night-of-9-march',
    tabs: [
      {
        title: 'Night log',
        body: `**21:40** Supply to bay 3 dips. The alarm rings at the desk only; the desk is empty.

**22:05** The reserve cooler reports *ready*, but does not take over.

**06:50** The early shift finds the bay at 11 °C. Lots K-2 and K-4 are inside; K-1 and K-3 had been moved to the north rack at 18:30.

**06:55** The reserve cooler is started by hand. The bay is back at −18 °C at 09:10.

**Day 14** The first count of K-4 gives 163; the two people who counted do not agree. The count by root length gives 148.`,
      },
    ],
  },
  parts: [
    {
      key: 'A',
      kind: 'writing',
      marks: 1200,
      minutes: 18,
      prompt:
        'Write the incident note for the archive’s book: what happened, what it means for the lots, and what should be done. 80 to 200 words.',
      content: written(
        { from: 80, to: 200 },
        {
          scheme: `**Facts**: the dip and its time, the nine warm hours, 11 °C, which lots were inside, the alarm at an empty desk.

**Reasoning**: K-4’s counts differ because of the rule of root length; warmth can start or spoil germination.

**Action**: recount or re-sow, mark both lots, the alarm to the person on call, a test of the reserve cooler – in an order.`,
          modelAnswer: `On the night of 9 March the supply to bay 3 dipped at 21:40 and the cooler stopped. The alarm rang at the empty desk only. At 06:50 the bay stood at 11 °C: K-2 and K-4 had been warm for about nine hours. The reserve cooler was ready and had not started.

K-4 was counted twice, with 163 and then 148 seedlings. The second count applied the rule that a root must be as long as the seed; the first did not. The difference is therefore one of method. Nine hours of warmth may start germination in damp seed or shorten its life in store, so neither count should be relied on.

First, send the alarm to the person on call from tonight. Second, recount K-4 by the rule, and re-sow it if the recount is below 65 per cent. Third, mark K-2 and K-4 in the register as warmed. Fourth, test the reserve cooler every month.`,
          criteria: [
            {
              key: 'f',
              title: 'Facts',
              levels: [
                level(0, 'none', 'No fact of the night is given.'),
                level(1, 'some', 'Some facts; times or lots are missing.'),
                level(2, 'most', 'Most facts, with times and lots.'),
                level(3, 'all', 'Time, temperature, lots and cause are all named.'),
              ],
            },
            {
              key: 'r',
              title: 'Reasoning',
              levels: [
                level(0, 'absent', 'Nothing is concluded.'),
                level(1, 'asserted', 'Conclusions without grounds.'),
                level(2, 'partly', 'Some conclusions follow from the facts.'),
                level(4, 'explained', 'The difference in the counts is explained by the rule.'),
              ],
            },
            {
              key: 'a',
              title: 'Action',
              levels: [
                level(0, 'none', 'No action is proposed.'),
                level(1, 'vague', 'Actions nobody could carry out as they stand.'),
                level(2, 'clear', 'Clear actions, in no order.'),
                level(3, 'clear, ordered', 'Clear actions, the most urgent first.'),
              ],
            },
            {
              key: 'l',
              title: 'Language',
              levels: [
                level(0, 'hard to follow', 'A reader has to guess.'),
                level(1, 'readable', 'It can be followed.'),
                level(2, 'plain, exact', 'Plain, exact and fit for the book.'),
              ],
            },
          ],
        },
      ),
    },
  ],
};

const lot = (name: string, sown: number, up: number) => ({ name, sown, up });

export const strongestLot: Draft = {
  key: 'strongest-lot',
  title: 'Strongest lot',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'code',
      marks: 600,
      minutes: 8,
      prompt:
        'Each lot has a `name`, the seeds `sown` and the seeds that came `up`. Write `strongest(lots)`: the name of the lot with the highest share germinated. Ignore lots with nothing sown. If lots are equal, return the first. If no lot is left, return an empty string.',
      content: program({
        way: {
          is: 'function',
          name: 'strongest',
          parameters: [
            { name: 'lots', type: { list: { record: { name: 'text', sown: 'whole', up: 'whole' } } } },
          ],
          returns: 'text',
        },
        languages: [
          startingWith(
            'python',
            'def strongest(lots):\n    """Name of the lot with the highest share germinated."""\n    return ""\n',
          ),
          startingWith(
            'javascript',
            '/** Name of the lot with the highest share germinated. */\nfunction strongest(lots) {\n  return "";\n}\n',
          ),
          'typescript',
        ],
        solutions: [
          {
            language: 'python',
            files: {
              'program.py':
                'def strongest(lots):\n    best = max((lot["up"] / lot["sown"] for lot in lots if lot["sown"]), default=None)\n    for lot in lots:\n        if lot["sown"] and lot["up"] / lot["sown"] == best:\n            return lot["name"]\n    return ""\n',
            },
            right: true,
          },
          {
            language: 'typescript',
            files: {
              'program.ts':
                'interface Lot { name: string; sown: number; up: number }\nfunction strongest(lots: Lot[]): string {\n  let best: Lot | null = null;\n  for (const lot of lots)\n    if (lot.sown > 0 && (best === null || lot.up / lot.sown > best.up / best.sown)) best = lot;\n  return best?.name ?? "";\n}\n',
            },
            right: true,
          },
          {
            language: 'python',
            files: {
              'program.py':
                'def strongest(lots):\n    return max(lots, key=lambda lot: lot["up"])["name"] if lots else ""\n',
            },
            right: false,
          },
        ],
        cases: [
          {
            key: 'three',
            title: 'three lots',
            input: [[lot('K-1', 100, 60), lot('K-2', 50, 40), lot('K-3', 80, 20)]],
            expected: 'K-2',
            shown: true,
          },
          {
            key: 'empty',
            title: 'an empty lot',
            input: [[lot('K-3', 0, 0), lot('K-4', 10, 1)]],
            expected: 'K-4',
            shown: true,
          },
          { key: 'none', title: 'no lots', input: [[]], expected: '', shown: true },
          {
            key: 'h-equal',
            title: 'equal shares',
            input: [[lot('M-8817', 40, 20), lot('M-8818', 20, 10)]],
            expected: 'M-8817',
            shown: false,
          },
          {
            key: 'h-many',
            title: 'many lots',
            input: [Array.from({ length: 40 }, (_, i) => lot(`Q-${7100 + i}`, 90, (i * 37) % 89))],
            expected: 'Q-7112',
            shown: false,
          },
          {
            key: 'h-nothing',
            title: 'only empty lots',
            input: [[lot('Z-9931', 0, 0)]],
            expected: '',
            shown: false,
          },
          {
            key: 'h-zero',
            title: 'nothing came up',
            input: [[lot('Z-9941', 30, 0), lot('Z-9942', 20, 0)]],
            expected: 'Z-9941',
            shown: false,
          },
        ],
        groups: [
          {
            key: 'usual',
            title: 'Usual lots',
            cases: ['h-equal', 'h-many'],
            counting: 'proportion',
          },
          {
            key: 'edges',
            title: 'Edges',
            cases: ['h-nothing', 'h-zero'],
            counting: 'proportion',
          },
        ],
      }),
    },
  ],
};

export const daysToHalf: Draft = {
  key: 'days-to-half',
  title: 'Days to half',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'code',
      marks: 900,
      minutes: 12,
      prompt:
        'A tray is counted every day. `counts` lists how many seeds have germinated **in all** by day 1, day 2 and so on; `sown` is how many were sown. Write `days_to_half(counts, sown)`: the day on which half of the sown seeds had germinated. Between two counts the number grows evenly, so the answer may be a fraction of a day; day 0 counts 0. If half is never reached, the answer is −1.',
      content: program({
        way: {
          is: 'function',
          name: 'days_to_half',
          parameters: [
            { name: 'counts', type: { list: 'whole' } },
            { name: 'sown', type: 'whole' },
          ],
          returns: 'decimal',
        },
        languages: [
          startingWith('python', 'def days_to_half(counts, sown):\n    return -1\n'),
          startingWith('javascript', 'function days_to_half(counts, sown) {\n  return -1;\n}\n'),
        ],
        cases: [
          // half of 20 is 10: reached exactly on day 2
          { key: 'exact', title: 'exactly on a day', input: [[4, 10, 15], 20], expected: 2, shown: true },
          // half of 10 is 5: from 4 on day 2 to 6 on day 3, half-way
          {
            key: 'between',
            title: 'between two days',
            input: [[2, 4, 6], 10],
            expected: 2.5,
            shown: true,
          },
          { key: 'never', title: 'never', input: [[1, 2, 3], 40], expected: -1, shown: true },
          // half of 16 is 8: the first day brings all 16, so half of that day
          {
            key: 'h-first',
            title: 'within the first day',
            input: [[16], 16],
            expected: 0.5,
            shown: false,
          },
          // half of 7717 is 3858.5: from 3000 to 4717 is 1717; 858.5 / 1717 = 0.5
          {
            key: 'h-odd',
            title: 'an odd number sown',
            input: [[1000, 3000, 4717], 7717],
            expected: 2.5,
            shown: false,
          },
          // flat days: 5 5 5 9, half of 14 is 7: half-way from day 3 to day 4
          { key: 'h-flat', title: 'flat days', input: [[5, 5, 5, 9], 14], expected: 3.5, shown: false },
          { key: 'h-none', title: 'no counts', input: [[], 8806], expected: -1, shown: false },
        ],
        groups: [
          {
            key: 'usual',
            title: 'Usual trays',
            cases: ['h-odd', 'h-flat'],
            weight: 3,
            counting: 'proportion',
          },
          { key: 'edges', title: 'Edges', cases: ['h-first', 'h-none'], weight: 2, counting: 'all' },
        ],
        comparison: { within: 0.000001 },
        rubric: {
          scheme:
            'Names say what they hold; no step is written twice; a reader follows it without running it.',
          modelAnswer:
            'One loop over the days that keeps the count of the day before; where half is passed, the share of the day is computed in one named expression and returned; −1 after the loop.',
          criteria: [
            {
              key: 'r',
              title: 'Readable',
              levels: [
                level(0, 'hard to follow', 'A reader has to run it to see what it does.'),
                level(1, 'readable', 'It can be followed, with some effort.'),
                level(2, 'clear', 'Clear names and steps; nothing is there twice.'),
              ],
            },
          ],
        },
      }),
    },
  ],
};

const STORE = `create table lot (id text primary key, species text not null, sown integer not null);
create table germination (lot text not null references lot, day integer not null, up integer not null);
`;

/** A query over two tables: lots without a count must not be lost. */
export const bestShares: Draft = {
  key: 'best-shares',
  title: 'Best shares',
  source: null,
  parts: [
    {
      key: 'A',
      kind: 'code',
      marks: 400,
      minutes: 6,
      prompt:
        'The table `lot` holds every lot, the table `germination` how many seeds of a lot had germinated by a day. List each species with its number of lots and the largest share that had germinated **by day 21**, in per cent of the seeds sown, to one decimal place. Name the columns `species`, `lots` and `best`. The largest share comes first; a species without a count on day 21 has no share (`NULL`) and comes last.',
      content: program({
        way: { is: 'query' },
        languages: [startingWith('sql', 'select species\nfrom lot\ngroup by species\n')],
        limits: { milliseconds: 2000, megabytes: 64 },
        comparison: { columnNames: true, within: 0.001 },
        fixtures: [
          {
            key: 'spring',
            title: 'spring counts',
            sql: `${STORE}insert into lot values ('K-1', 'sea kale', 240), ('K-2', 'sea kale', 240), ('M-1', 'marram', 100), ('T-1', 'thrift', 80);
insert into germination values ('K-1', 14, 131), ('K-1', 21, 180), ('K-2', 14, 120), ('K-2', 21, 171), ('M-1', 21, 64);`,
          },
        ],
        hiddenFixtures: [
          {
            key: 'later',
            title: 'counts after day 21',
            // 10 of 50 is 20 %, 9 of 10 is 90 %, 150 of 200 is 75 %; the 160 of day 28 do not count.
            sql: `${STORE}insert into lot values ('H-8801', 'sea holly', 50), ('H-8802', 'sea holly', 10), ('L-8811', 'lyme grass', 200);
insert into germination values ('H-8801', 21, 10), ('H-8802', 21, 9), ('L-8811', 21, 150), ('L-8811', 28, 160);`,
          },
          {
            key: 'uncounted',
            title: 'nothing counted',
            sql: `${STORE}insert into lot values ('S-8821', 'samphire', 70), ('S-8822', 'samphire', 30);`,
          },
        ],
        cases: [
          {
            key: 'spring',
            title: 'spring counts',
            input: 'spring',
            // 180 of 240 is 75 %, 64 of 100 is 64 %
            expected: {
              columns: ['species', 'lots', 'best'],
              rows: [
                ['sea kale', 2, 75],
                ['marram', 1, 64],
                ['thrift', 1, null],
              ],
            },
            shown: true,
          },
          {
            key: 'h-later',
            title: 'counts after day 21',
            input: 'later',
            expected: {
              columns: ['species', 'lots', 'best'],
              rows: [
                ['sea holly', 2, 90],
                ['lyme grass', 1, 75],
              ],
            },
            shown: false,
          },
          {
            key: 'h-none',
            title: 'nothing counted',
            input: 'uncounted',
            expected: { columns: ['species', 'lots', 'best'], rows: [['samphire', 2, null]] },
            shown: false,
          },
        ],
        groups: [
          { key: 'days', title: 'Only day 21', cases: ['h-later'], counting: 'all' },
          { key: 'gaps', title: 'Species without a count', cases: ['h-none'], counting: 'all' },
        ],
        solutions: [
          {
            language: 'sql',
            files: {
              'query.sql':
                'select species, count(*) as lots, round(max(100.0 * up / sown), 1) as best\nfrom lot left join germination on lot.id = germination.lot and day = 21\ngroup by species\norder by best desc\n',
            },
            right: true,
          },
          {
            language: 'sql',
            files: {
              'query.sql':
                'select species, count(*) as lots, round(max(100.0 * up / sown), 1) as best\nfrom lot join germination on lot.id = germination.lot and day = 21\ngroup by species\norder by best desc\n',
            },
            right: false,
          },
        ],
      }),
    },
  ],
};
