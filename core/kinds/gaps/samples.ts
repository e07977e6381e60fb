import type { Sample } from '../contract';
import type { GapsContent, GapsResponse } from './content';

export const samples: Sample<GapsContent, GapsResponse>[] = [
  {
    title: 'one from a list, one typed',
    content: {
      text: 'Lot K-2 is [[a]] because no more than a [[b]] are empty.',
      gaps: [
        { key: 'a', by: 'list', options: ['kept', 're-sown'], right: 'kept' },
        {
          key: 'b',
          by: 'typing',
          accepted: ['tenth', '10th'],
          oneWord: true,
          ignoreCase: true,
          ignoreAccents: true,
          slips: 1,
        },
      ],
    },
    maximum: 200,
    best: { filled: { a: 'kept', b: 'Tenth' } },
    partly: { filled: { a: 'kept' } },
    secrets: ['tenth', 'right', 'accepted'],
  },
];
