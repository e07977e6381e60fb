import { plainDocument } from '../../documents/document';
import type { Random } from '../../random';
import type { Sample } from '../contract';
import type { CaseOutcome, EvidenceFound } from '../evidence';
import type { CodeAsked, CodeKey } from './content';
import type { CodeResponse } from './response';

const returned = (key: string, value: number): CaseOutcome => ({
  key,
  result: 'returned',
  value: ['i', String(value)],
  milliseconds: 1,
  memoryBytes: 0,
  printed: '',
});
const found: Readonly<Record<string, EvidenceFound>> = {
  run: { sort: 'program', outcomes: [returned('h1', 62674), returned('h2', -8484)] },
};
const write = (body: string): CodeResponse => ({
  language: 'python',
  programs: { python: { 'program.py': `def double(n):\n    return ${body}\n` } },
});

const asked: CodeAsked = {
  way: { is: 'function', name: 'double', parameters: [{ name: 'n', type: 'whole' }], returns: 'whole' },
  languages: [{ language: 'python', files: [], limits: null }],
  cases: [{ key: 'seen', title: 'two', input: [2], files: [], expected: 4 }],
  fixtures: [],
  hiddenCases: 2,
  groupCount: 1,
  comparison: { text: 'lines', within: 0, anyOrder: false, columnNames: false, byChecker: false },
  checker: null,
  conditions: [],
  showsHidden: false,
  criteria: [],
  limits: { milliseconds: 2000, megabytes: 64 },
};
const key: CodeKey = {
  cases: [
    { key: 'h1', title: 'hidden one', input: [31337], files: [], expected: 62674 },
    { key: 'h2', title: 'hidden two', input: [-4242], files: [], expected: -8484 },
  ],
  fixtures: [],
  groups: [
    {
      key: 'main',
      title: 'Large and negative',
      cases: ['h1', 'h2'],
      counting: 'proportion',
    },
  ],
  checker: null,
  solutions: [],
  rubric: null,
};
const rubric: NonNullable<CodeKey['rubric']> = {
  scheme: plainDocument('One line is enough.'),
  criteria: [
    {
      key: 'r',
      title: 'Readable',
      levels: [
        { hundredths: 0, label: 'no', says: 'hard to read' },
        { hundredths: 100, label: 'yes', says: 'reads well' },
      ],
    },
  ],
};
const common = {
  best: write('2 * n'),
  partly: null,
  wrong: null,
  misfit: { language: 'javascript', programs: {} } as const,
  randomResponse: (random: Random) => write(`${Math.floor(random() * 9)} * n`),
  evidence: found,
  failing: { run: { sort: 'program', outcomes: [returned('h1', 1), returned('h2', 1)] } } as const,
};
const secrets = ['31337', '62674', '4242', '8484', 'hidden one', 'Large and negative'];
export const samples: Sample<CodeAsked, CodeKey, CodeResponse>[] = [
  {
    ...common,
    title: 'double a number',
    content: { asked, key },
    marks: 300,
    secrets,
  },
  {
    ...common,
    title: 'double a number, read by people as well',
    content: {
      asked: { ...asked, criteria: [{ title: 'Readable', hundredths: 100 }] },
      key: { ...key, rubric },
    },
    marks: 400,
    secrets: [...secrets, 'One line', 'hard to read'],
  },
];
