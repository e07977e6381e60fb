import type { FullPaper } from '../core/papers/paper';
import { usualAids } from '../core/kit/aids';
import { paperOfDraft } from '../server/papers/drafts';
import type { ImportedFile } from '../server/papers/readFile';
import { firstVersion, type Draft } from './items/draft';
import {
  askTheKeeper,
  fencedBed,
  openPath,
  seedsForTheStrip,
  theLastTray,
  theSlope,
  traysToFill,
} from './items/fieldMaths';
import { coastalPlants, fourBags, oneBag, theBriefing, theMap, theTray, threeLots } from './items/fieldDay';

const entry = ({ key }: Draft, page?: string) => ({ key, version: 1, ...(page ? { page } : {}) });

const FORMULAS = `**Share that has germinated**

:formula{tex="p = \\frac{n}{N} \\times 100\\,\\%" says="p is n divided by N, times one hundred per cent"}

*n* is the number of seeds with a root, *N* that of all seeds which are not empty.

| Species | Re-sow below | Count on days |
|---|--:|---|
| Sea kale | 65 % | 7, 14, 21 |
| Sea holly | 60 % | 14, 28 |
| Thrift | 75 % | 7, 14 |`;

/** The entrance candidates' paper; its texts name these files. */
export function fieldSchoolPaper(files: ReadonlyMap<string, ImportedFile>): FullPaper {
  return paperOfDraft(
    {
      key: 'field-school-entrance',
      version: 1,
      title: 'Field School entrance paper',
      cover: 'This paper is about a day in the field. You hear, read and see what the questions are about.',
      minutes: 75,
      warningMinutes: [15, 5],
      sections: [
        {
          key: 'A',
          title: 'Listening',
          introduction:
            'A recording can be played twice. Read the questions first: the recording cannot be paused.',
          minutes: null,
          items: [entry(theBriefing), entry(theMap)],
        },
        {
          key: 'B',
          title: 'Reading and measuring',
          introduction:
            'Two handouts belong to this section. You find them at the foot of the page. There is no calculator here.',
          minutes: null,
          handouts: [
            {
              key: 'rules',
              title: 'Rules for collecting',
              body: '::pdf{file=collecting-rules.pdf title="Rules for collecting seed"}',
            },
            { key: 'formulas', title: 'Formulas and limits', body: FORMULAS },
          ],
          items: [
            entry(coastalPlants),
            entry(threeLots),
            entry(oneBag, 'weighing'),
            entry(fourBags, 'weighing'),
          ],
        },
        {
          key: 'C',
          title: 'Observing',
          introduction: 'A short film, which you can play as often as you like.',
          minutes: 12,
          items: [entry(theTray)],
        },
        {
          key: 'D',
          title: 'Figures and graphs',
          introduction:
            'Lines and places are drawn with the pointer, a finger or the arrow keys. This section has a calculator, a ruler and a protractor. Its questions come one after the other: you cannot go back.',
          minutes: null,
          navigation: 'forward only',
          aids: [...usualAids, 'scientific-calculator', 'ruler', 'protractor'],
          items: [entry(openPath), entry(fencedBed), entry(theSlope)],
        },
        {
          key: 'E',
          title: 'Writing',
          introduction: 'One answer can be written by hand: photograph it with this device or with a phone.',
          minutes: null,
          items: [entry(seedsForTheStrip), entry(askTheKeeper)],
        },
        {
          key: 'F',
          title: 'Two steps',
          introduction:
            'The second question tells the answer to the first: it opens when the first is answered, and you cannot go back.',
          minutes: null,
          navigation: 'forward only once answered',
          items: [entry(traysToFill), entry(theLastTray)],
        },
      ],
      bands: [
        { title: 'Not yet', from: 0 },
        { title: 'Ready', from: 2600 },
        { title: 'Very well prepared', from: 3800 },
      ],
      showRightAnswers: true,
      rules: {
        version: '2026-11',
        text: 'Work alone. You may use paper and a pencil. Do not record the sound, the film or the questions.',
        statements: [{ key: 'alone', text: 'I work alone and without help.' }],
      },
      bank: [
        theBriefing,
        theMap,
        coastalPlants,
        threeLots,
        oneBag,
        fourBags,
        theTray,
        openPath,
        fencedBed,
        theSlope,
        seedsForTheStrip,
        askTheKeeper,
        traysToFill,
        theLastTray,
      ].map(firstVersion),
    },
    (name) => files.get(name)?.facts ?? null,
  );
}
