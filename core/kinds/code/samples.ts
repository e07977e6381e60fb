import type { CaseOutcome, Sample } from '../contract';
import type { CodeContent, CodeResponse } from './content';

const returned = (key: string, value: number): CaseOutcome => ({
  key,
  result: 'returned',
  value,
  milliseconds: 1,
  printed: '',
});

export const samples: Sample<CodeContent, CodeResponse>[] = [
  {
    title: 'double a number',
    content: {
      functionName: 'double',
      languages: [{ language: 'python', starter: 'def double(n):\n    pass\n' }],
      cases: [
        { key: 'seen', title: 'two', arguments: [2], expected: 4, shown: true },
        { key: 'h1', title: 'hidden one', arguments: [31337], expected: 62674, shown: false },
        { key: 'h2', title: 'hidden two', arguments: [-4242], expected: -8484, shown: false },
      ],
      groups: [
        {
          key: 'main',
          title: 'Large and negative',
          cases: ['h1', 'h2'],
          percent: 100,
          counting: 'proportion',
        },
      ],
      limits: { milliseconds: 2000, megabytes: 64 },
      numberTolerance: 0,
    },
    maximum: 300,
    best: { language: 'python', programs: { python: 'def double(n):\n    return 2 * n\n' } },
    secrets: ['31337', '62674', '4242', '8484', 'hidden one', 'Large and negative'],
    outcomes: [returned('h1', 62674), returned('h2', -8484)],
  },
];
