import type { Sample } from '../contract';
import type { ChoiceContent, ChoiceResponse } from './content';

const options = ['kale', 'holly', 'rush', 'thrift'].map((key) => ({ key, text: `Sea ${key}` }));

export const samples: Sample<ChoiceContent, ChoiceResponse>[] = [
  {
    title: 'one of four, a wrong choice costs a third',
    content: {
      options,
      right: ['holly'],
      mode: 'one',
      choose: null,
      rule: 'all-or-nothing',
      penalty: 1 / 3,
      shuffle: true,
    },
    maximum: 100,
    best: { chosen: ['holly'] },
    secrets: ['right'],
  },
  {
    title: 'choose two',
    content: {
      options,
      right: ['kale', 'rush'],
      mode: 'several',
      choose: 2,
      rule: 'each',
      penalty: 0,
      shuffle: false,
    },
    maximum: 200,
    best: { chosen: ['rush', 'kale'] },
    partly: { chosen: ['kale'] },
    secrets: ['right'],
  },
];
