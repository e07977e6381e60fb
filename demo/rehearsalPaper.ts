import type { FullPaper } from '../core/papers/paper';
import { aidNames, usualAids, type AidName } from '../core/kit/aids';
import { paperOfDraft, type PaperDraft } from '../server/papers/drafts';
import type { ImportedFile } from '../server/papers/readFile';
import { coffeeRota } from './items/coffeeRota';
import { firstVersion, type Draft } from './items/draft';
import { gallery } from './items/gallery';

/** A rehearsal of these questions, in one section. */
const rehearsal = (
  of: Pick<PaperDraft, 'key' | 'title' | 'cover' | 'minutes'> & {
    readonly introduction: string;
    readonly aids: readonly AidName[];
    readonly handouts?: PaperDraft['sections'][number]['handouts'];
  },
  drafts: readonly Draft[],
  files: ReadonlyMap<string, ImportedFile>,
): FullPaper => {
  const { introduction, aids, handouts = [], ...paper } = of;
  return paperOfDraft(
    {
      ...paper,
      version: 1,
      warningMinutes: [5],
      sections: [
        {
          key: 'A',
          title: 'The coffee rota',
          introduction,
          aids: [...aids],
          minutes: null,
          handouts,
          items: drafts.map(({ key }) => ({ key, version: 1 })),
        },
      ],
      bands: [],
      showRightAnswers: true,
      rules: { version: 'rehearsal', text: '', statements: [] },
      bank: drafts.map(firstVersion),
    },
    (name) => files.get(name)?.facts ?? null,
  );
};

/** The rehearsal: the same desk, made-up questions, nothing at stake. */
export const rehearsalPaper = (): FullPaper =>
  rehearsal(
    {
      key: 'rehearsal',
      title: 'Rehearsal: the coffee rota',
      cover: 'Easy questions, one of each common kind. Nothing is kept.',
      minutes: 15,
      introduction: 'Try everything: strike out, flag, move about, look back, and the aids at the foot.',
      aids: [...usualAids, 'calculator'],
    },
    coffeeRota,
    new Map(),
  );

/** A rehearsal that holds one question of every kind there is. */
export const galleryPaper = (files: ReadonlyMap<string, ImportedFile>): FullPaper =>
  rehearsal(
    {
      key: 'gallery',
      title: 'Rehearsal: every kind of question',
      cover: 'Easy questions, one of every kind. Nothing is kept.',
      minutes: 45,
      introduction:
        'Here you can try every kind of question, and every aid, before you meet it in a test. A test has those aids that its sections allow.',
      aids: aidNames.filter((name) => name !== 'calculator'),
      handouts: [
        {
          key: 'coffee-machine',
          title: 'The coffee machine',
          body: 'A pot takes 60 g of coffee and serves 8 cups.\n\n1. Fill in the water.\n2. Put in a filter and the coffee.\n3. Switch on, and wait for the second click.',
        },
      ],
    },
    gallery,
    files,
  );
