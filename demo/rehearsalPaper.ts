import type { FullPaper } from '../core/papers/paper';
import { paperOfDraft } from '../server/papers/drafts';
import { coffeeRota } from './items/coffeeRota';
import { firstVersion } from './items/draft';

/** The rehearsal: the same desk, made-up questions, nothing at stake. */
export function rehearsalPaper(): FullPaper {
  const bank = coffeeRota.map(firstVersion);
  return paperOfDraft({
    key: 'rehearsal',
    version: 1,
    title: 'Rehearsal: the coffee rota',
    cover: 'Easy questions, one of each kind. Nothing is kept.',
    minutes: 15,
    warningMinutes: [5],
    sections: [
      {
        key: 'A',
        title: 'The coffee rota',
        introduction: 'Try everything: strike out, flag, move about, look back.',
        minutes: null,
        items: bank.map(({ key, version }) => ({ key, version })),
      },
    ],
    bands: [],
    showRightAnswers: true,
    rules: { version: 'rehearsal', text: '', statements: [] },
    bank,
  });
}
