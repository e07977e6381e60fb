import { plainDocument } from '../../documents/document';
import type { Random } from '../../random';
import type { Sample } from '../contract';
import type { WritingAsked, WritingKey } from './content';
import type { WritingResponse } from './response';

const write = (text: string): WritingResponse => ({
  text: { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text }] }] },
});
const level = (hundredths: number, label: string, says: string) => ({ hundredths, label, says });
const titles = ['Facts', 'Language'];

export const samples: Sample<WritingAsked, WritingKey, WritingResponse>[] = [
  {
    title: 'a short note with two criteria',
    content: {
      asked: {
        format: 'rich',
        wordsFrom: 3,
        wordsTo: 6,
        limit: 'hard',
        criteria: titles.map((title) => ({ title, hundredths: 100 })),
      },
      key: {
        rubric: {
          scheme: plainDocument('The cooler failed at four; both lots are named.'),
          modelAnswer: plainDocument('At four the cooler stopped by itself.'),
          criteria: [
            {
              key: 'f',
              title: 'Facts',
              levels: [level(0, 'none', 'no fact'), level(100, 'all', 'time and lots')],
            },
            {
              key: 'l',
              title: 'Language',
              levels: [level(0, 'hard to follow', 'unclear'), level(100, 'plain', 'clear')],
            },
          ],
        },
      },
    },
    marks: 200,
    best: write('The cooler failed at four'),
    partly: write('Cooler failed'),
    wrong: null,
    misfit: null,
    randomResponse: (random: Random) => write('word '.repeat(Math.floor(random() * 10))),
    secrets: ['scheme', 'both lots', 'stopped by itself', 'no fact', 'hard to follow'],
  },
];
