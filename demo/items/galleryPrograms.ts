import { program, startingWith } from './contents';
import type { Draft } from './draft';

const question = (
  key: string,
  title: string,
  part: Omit<Draft['parts'][number], 'key' | 'minutes'>,
): Draft => ({
  key,
  title,
  source: null,
  parts: [{ key: 'A', minutes: null, ...part }],
});

/** A program that reads an input and writes an output. */
export const cupsInAll = question('gallery-cups', 'Cups in all', {
  kind: 'code',
  marks: 200,
  prompt:
    'The input has a line for each person: a name and a number of cups. Write a program that reads it and writes the number of cups in all.',
  content: program({
    way: { is: 'streams' },
    languages: [
      startingWith('python', 'import sys\n\nfor line in sys.stdin:\n    pass\nprint(0)\n'),
      startingWith(
        'typescript',
        'let line: string | null;\nwhile ((line = readLine()) !== null) {\n  \n}\nconsole.log(0);\n',
      ),
    ],
    cases: [
      { key: 'two', title: 'two people', input: 'Ada 2\nBen 3\n', expected: '5\n', shown: true },
      { key: 'nobody', title: 'nobody', input: '', expected: '0\n', shown: true },
      { key: 'many', title: 'a long day', input: 'Ada 12\nBen 30\nCem 8\n', expected: '50\n', shown: false },
    ],
    groups: [{ key: 'all', title: 'Further days', cases: ['many'], counting: 'all' }],
  }),
});

const CUPS = 'create table cup (person text, day text, cups integer);\n';

/** A query. */
export const whoDrinks = question('gallery-query', 'Who drinks what', {
  kind: 'code',
  marks: 200,
  prompt: 'List each `person` with their cups in all, as `person` and `total`. The rows may have any order.',
  content: program({
    way: { is: 'query' },
    languages: [startingWith('sql', 'select person\nfrom cup\n')],
    comparison: { anyOrder: true, columnNames: true },
    fixtures: [
      {
        key: 'week',
        title: 'a week',
        sql: `${CUPS}insert into cup values ('Ada', 'Monday', 2), ('Ada', 'Tuesday', 1), ('Ben', 'Monday', 3);`,
      },
    ],
    hiddenFixtures: [{ key: 'empty', title: 'an empty week', sql: CUPS }],
    cases: [
      {
        key: 'week',
        title: 'a week',
        input: 'week',
        expected: {
          columns: ['person', 'total'],
          rows: [
            ['Ada', 3],
            ['Ben', 3],
          ],
        },
        shown: true,
      },
      {
        key: 'h-empty',
        title: 'an empty week',
        input: 'empty',
        expected: { columns: ['person', 'total'], rows: [] },
        shown: false,
      },
    ],
    groups: [{ key: 'all', title: 'Both weeks', cases: ['week', 'h-empty'], counting: 'all' }],
  }),
});
