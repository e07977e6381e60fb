import type { FullPaper } from '../core/papers/paper';
import { usualAids } from '../core/kit/aids';
import { paperOfDraft } from '../server/papers/drafts';
import { firstVersion } from './items/draft';
import { partsOfASeed, whichTrays } from './items/observing';
import { moisture, theLabel } from './items/records';

const items = [partsOfASeed, whichTrays, theLabel, moisture];

/** A short check that the machine marks, with several attempts. */
export const countingPaper = (): FullPaper =>
  paperOfDraft({
    key: 'counting-check',
    version: 1,
    title: 'Counting check',
    cover: 'Four short questions on trays, labels and counts.',
    minutes: 20,
    warningMinutes: [5, 1],
    sections: [
      {
        key: 'A',
        title: 'Trays and labels',
        introduction: '',
        aids: [...usualAids, 'calculator'],
        minutes: null,
        items: items.map(({ key }) => ({ key, version: 1 })),
      },
    ],
    bands: [],
    showRightAnswers: true,
    rules: {
      version: '2026-10',
      text: 'Work alone. Do not pass the questions on.',
      statements: [{ key: 'own', text: 'I answer on my own.' }],
    },
    bank: items.map(firstVersion),
  });
