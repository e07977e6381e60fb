import { plainDocument } from '../../documents/document';
import type { Sample } from '../contract';
import type { OnPaperAsked, OnPaperKey } from './content';
import type { OnPaperResponse } from './response';

const level = (hundredths: number, label: string) => ({ hundredths, label, says: `${label} of the labels` });

export const samples: Sample<OnPaperAsked, OnPaperKey, OnPaperResponse>[] = [
  {
    title: 'a drawing on the worksheet',
    content: {
      asked: {
        sheet: plainDocument('Draw the seed on sheet 3 and give the sheet to the invigilator.'),
        criteria: [{ title: 'Drawing', hundredths: 200 }],
      },
      key: {
        rubric: {
          scheme: plainDocument('Every layer is drawn.'),
          criteria: [{ key: 'd', title: 'Drawing', levels: [level(0, 'none'), level(200, 'all')] }],
        },
      },
    },
    marks: 200,
    best: { done: true },
    partly: null,
    wrong: null,
    misfit: null,
    randomResponse: (random) => ({ done: random() < 0.5 }),
    secrets: ['Every layer', 'scheme', 'all of the labels'],
  },
];
