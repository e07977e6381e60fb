import type { FullPaper, Navigation } from '../core/papers/paper';
import { usualAids, type AidName } from '../core/kit/aids';
import { paperOfDraft } from '../server/papers/drafts';
import { firstVersion, type Draft } from './items/draft';
import { aDayOfCounting, partsOfASeed, readingTheDial, whichTrays } from './items/observing';
import { moisture, theLabel, tray14 } from './items/records';
import {
  accessionLedger,
  coldRange,
  howManyToSow,
  trayCurve,
  whatIsWritten,
  whereTheyKeep,
} from './items/storeBook';
import { bestShares, daysToHalf, incidentNote, strongestLot } from './items/writingAndPrograms';

interface Section {
  readonly key: string;
  readonly title: string;
  readonly introduction: string;
  readonly aids?: AidName[];
  readonly navigation?: Navigation;
  readonly items: readonly Draft[];
}

const first: readonly Section[] = [
  {
    key: 'A',
    title: 'Observing',
    introduction: 'What is seen on the trays and on the instruments.',
    items: [partsOfASeed, whichTrays, readingTheDial, aDayOfCounting],
  },
  {
    key: 'B',
    title: 'Records',
    introduction: 'Notes, counts and labels. Some questions share a source.',
    aids: [...usualAids, 'calculator'],
    items: [tray14, theLabel, moisture],
  },
  {
    key: 'C',
    title: 'Writing and programs',
    introduction: 'A note for the archive’s book, and two small programs.',
    items: [incidentNote, strongestLot, daysToHalf],
  },
];

/** What the second version asks besides, by section. */
const ADDED: Readonly<Record<string, readonly Draft[]>> = {
  A: [trayCurve, coldRange],
  B: [accessionLedger, whereTheyKeep, whatIsWritten],
  C: [howManyToSow, bestShares],
};
/** The main sitting asks the first version's questions, one that is worked on paper, and a query. */
const main = first.map((section) =>
  section.key === 'C' ? { ...section, items: [...section.items, howManyToSow, bestShares] } : section,
);
const second = first.map((section) => ({
  ...section,
  // Observations are short: none may be left out.
  ...(section.key === 'A' ? { navigation: 'free, all answered' as const } : {}),
  items: [...section.items, ...ADDED[section.key]!],
}));

const VERSIONS = {
  1: {
    sections: first,
    minutes: 60,
    bands: [
      { title: 'Beginning', from: 0 },
      { title: 'Capable', from: 2000 },
      { title: 'Proficient', from: 3200 },
      { title: 'Outstanding', from: 4100 },
    ],
  },
  2: {
    sections: second,
    minutes: 91,
    bands: [
      { title: 'Beginning', from: 0 },
      { title: 'Capable', from: 3150 },
      { title: 'Proficient', from: 5050 },
      { title: 'Outstanding', from: 6500 },
    ],
  },
  3: {
    sections: main,
    minutes: 74,
    bands: [
      { title: 'Beginning', from: 0 },
      { title: 'Capable', from: 2400 },
      { title: 'Proficient', from: 3800 },
      { title: 'Outstanding', from: 4850 },
    ],
  },
} as const;

const RULES = `These rules keep the test fair for everybody who sits it.

- Work alone. Nobody helps you and nobody else is in the room.
- You may use paper and a pencil. Books and other programs stay closed. A phone is used only where a question asks for a picture of your working.
- The questions belong to the archive. Do not copy them or pass them on.
- If something fails – the light, the network, this window – do not worry: open your link again. Your answers are kept, and the clock runs on.`;

/** The job applicants' paper in one of its versions, parsed as any paper is before it is published. */
export function technicianPaper(version: keyof typeof VERSIONS = 1): FullPaper {
  const { sections, minutes, bands } = VERSIONS[version];
  return paperOfDraft({
    key: 'germination-data-technician',
    version,
    title: 'Germination Data Technician',
    cover: 'This paper is about the daily work in the cold-store of the Hollin Reach Seed Archive.',
    minutes,
    warningMinutes: [15, 5],
    sections: sections.map(({ items, ...section }) => ({
      ...section,
      minutes: null,
      items: items.map(({ key }) => ({ key, version: 1 })),
    })),
    bands: [...bands],
    showRightAnswers: true,
    rules: {
      version: '2026-10',
      text: RULES,
      statements: [
        { key: 'alone', text: 'I work alone, without help from people or programs.' },
        { key: 'questions', text: 'I will not share the questions with anybody.' },
      ],
    },
    bank: sections.flatMap((s) => s.items).map(firstVersion),
  });
}
