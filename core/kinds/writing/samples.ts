import type { Sample } from '../contract';
import type { WritingContent, WritingResponse } from './content';

const say = (text: string): WritingResponse => ({
  text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] },
});

export const samples: Sample<WritingContent, WritingResponse>[] = [
  {
    title: 'a short note with two criteria',
    content: {
      format: 'rich',
      wordsFrom: 3,
      wordsTo: 6,
      rubric: {
        scheme: 'The cooler failed at four; both lots are named.',
        criteria: [
          {
            key: 'f',
            title: 'Facts',
            levels: [
              { hundredths: 0, label: 'none', says: 'no fact' },
              { hundredths: 100, label: 'all', says: 'time and lots' },
            ],
          },
          {
            key: 'l',
            title: 'Language',
            levels: [
              { hundredths: 0, label: 'hard to follow', says: 'unclear' },
              { hundredths: 100, label: 'plain', says: 'clear' },
            ],
          },
        ],
      },
    },
    maximum: 200,
    best: say('The cooler failed at four'),
    partly: say('Cooler failed'),
    secrets: ['scheme', 'both lots', 'no fact', 'hard to follow'],
  },
];
