import type { Random } from '../../random';
import type { Sample } from '../contract';
import type { EvidenceFound } from '../evidence';
import type { ExpressionAsked, ExpressionKey } from './content';
import type { ExpressionResponse } from './response';

const found = (is: 'equal' | 'different', inForm: boolean | null): EvidenceFound => ({
  sort: 'expression',
  is,
  why: '',
  inForm,
});
const ENTRIES = [
  '',
  'x+1',
  '\\frac{3}{}',
  '2\\left(x+1\\right)',
  '\\placeholder{}',
  '1,5',
  'x=',
  '}{',
  '\\sqrt2',
];
const randomResponse = (random: Random): ExpressionResponse => ({
  latex: ENTRIES[Math.floor(random() * ENTRIES.length)]!,
});

export const samples: Sample<ExpressionAsked, ExpressionKey, ExpressionResponse>[] = [
  {
    title: 'a polynomial, factorised',
    content: {
      asked: {
        before: 'p =',
        after: '',
        tools: ['fractions', 'powers', 'brackets'],
        list: false,
        letters: [],
        functions: [],
        form: 'factorised',
      },
      key: {
        accepted: [
          { latex: '\\left(x+1\\right)\\left(x+2\\right)', percent: 100, note: '' },
          { latex: 'x^2+3x-2', percent: 50, note: 'one sign slipped' },
        ],
        otherForm: 50,
        domain: {},
        log: 10,
      },
    },
    marks: 300,
    best: { latex: '(x+2)(1+x)' },
    partly: null,
    wrong: { latex: 'x+3' },
    misfit: null,
    randomResponse,
    secrets: ['x^2+3x', 'slipped'],
    evidence: { 'accepted-0': found('equal', true), 'accepted-1': found('different', false) },
    failing: { 'accepted-0': found('different', false), 'accepted-1': found('different', false) },
  },
];
