import type { FullPaper } from '../core/papers/paper';
import { paperOfDraft } from '../server/papers/drafts';
import { firstVersion, type Draft } from './items/draft';
import { aDayOfCounting, partsOfASeed, readingTheDial, whichTrays } from './items/observing';
import { moisture, theLabel, tray14 } from './items/records';
import { daysToHalf, incidentNote, strongestLot } from './items/writingAndPrograms';

const sections: { key: string; title: string; introduction: string; items: Draft[] }[] = [
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
    items: [tray14, theLabel, moisture],
  },
  {
    key: 'C',
    title: 'Writing and programs',
    introduction: 'A note for the archive’s book, and two small programs in Python or JavaScript.',
    items: [incidentNote, strongestLot, daysToHalf],
  },
];

const RULES = `These rules keep the test fair for everybody who sits it.

- Work alone. Nobody helps you and nobody else is in the room.
- You may use paper and a pencil. Books, phones and other programs stay closed.
- The questions belong to the archive. Do not copy them or pass them on.
- If something fails – the light, the network, this window – do not worry: open your link again. Your answers are kept, and the clock runs on.`;

/** The job applicants' paper, parsed as any paper is before it is published. */
export function technicianPaper(): FullPaper {
  return paperOfDraft({
    key: 'germination-data-technician',
    version: 1,
    title: 'Germination Data Technician',
    cover: 'This paper is about the daily work in the cold-store of the Hollin Reach Seed Archive.',
    minutes: 60,
    warningMinutes: [15, 5],
    sections: sections.map(({ items, ...section }) => ({
      ...section,
      minutes: null,
      items: items.map(({ key }) => ({ key, version: 1 })),
    })),
    bands: [
      { title: 'Beginning', from: 0 },
      { title: 'Capable', from: 2000 },
      { title: 'Proficient', from: 3200 },
      { title: 'Outstanding', from: 4100 },
    ],
    showRightAnswers: true,
    rules: {
      version: '2026-10',
      text: RULES,
      statements: [
        { key: 'alone', text: 'I work alone, without help from people or programs.' },
        { key: 'questions', text: 'I keep the questions to myself.' },
        {
          key: 'recorded',
          text: 'I know that one picture is taken now and kept for 60 days, and nothing else is recorded.',
        },
      ],
    },
    bank: sections.flatMap((s) => s.items).map(firstVersion),
  });
}
