import type { FullPaper } from '../core/papers/paper';
import { paperOfDraft } from '../server/papers/drafts';
import { firstVersion } from './items/draft';
import { readingPool, readingTopics } from './items/readingPool';

/** The Field School's reading, as an adaptive section of its own. */
export function readingPaper(): FullPaper {
  return paperOfDraft({
    key: 'field-school-reading',
    version: 1,
    title: 'Field School reading',
    cover:
      'Short questions about what people at the archive write. Each next question depends on your answers.',
    minutes: 30,
    warningMinutes: [5],
    sections: [
      {
        key: 'A',
        title: 'Reading',
        introduction:
          'Each question is chosen by your answers so far. You see one question at a time and cannot go back.',
        minutes: 25,
        navigation: 'forward only',
        adaptive: {
          // Wider than the group it was calibrated on: the estimate is pulled less towards the middle.
          prior: { mean: 0, sd: 2 },
          targetError: 0.45,
          leastLength: 8,
          greatestLength: 24,
          topics: [
            { topic: readingTopics.f, share: 0.34 },
            { topic: readingTopics.w, share: 0.33 },
            { topic: readingTopics.c, share: 0.33 },
          ],
          best: 4,
          exposureLimit: 0.6,
          scale: { mean: 500, step: 100 },
          levels: [
            { title: 'A', from: 0 },
            { title: 'B', from: 420 },
            { title: 'C', from: 520 },
            { title: 'D', from: 620 },
          ],
        },
        items: readingPool.map(({ key }) => ({ key, version: 1 })),
      },
    ],
    bands: [],
    showRightAnswers: true,
    rules: {
      version: '2026-12',
      text: 'Work alone. Do not copy or record the questions.',
      statements: [{ key: 'alone', text: 'I work alone and without help.' }],
    },
    bank: readingPool.map(firstVersion),
  });
}
