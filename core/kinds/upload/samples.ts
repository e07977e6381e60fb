import { plainDocument } from '../../documents/document';
import type { Page } from '../../files/pages';
import type { Random } from '../../random';
import type { Sample } from '../contract';
import { emptyRich, type RichNode } from '../shared/richText';
import type { UploadAsked, UploadKey } from './content';
import type { UploadResponse } from './response';

const level = (hundredths: number, label: string) => ({ hundredths, label, says: `${label} of the working` });
const typed = (text: string): RichNode => ({
  type: 'doc',
  content: [{ type: 'paragraph', content: [{ type: 'text', text }] }],
});

/** A page whose hash is one sign all along. */
export const pageOf = (sign: string, more: Partial<Page> = {}): Page => ({
  hash: sign.repeat(64),
  bytes: 48_000,
  type: 'image/jpeg',
  turn: 0,
  ...more,
});

const content = (text: boolean) => ({
  asked: { pagesFrom: 2, pagesTo: 4, text, criteria: [{ title: 'Working', hundredths: 400 }] },
  key: {
    rubric: {
      scheme: plainDocument('Two germination rates and their difference.'),
      criteria: [{ key: 'w', title: 'Working', levels: [level(0, 'none'), level(400, 'all')] }],
    },
  },
});

const randomPages = (random: Random): Page[] =>
  ['a', 'b', 'c', 'd']
    .filter(() => random() < 0.5)
    .map((sign) => pageOf(sign, { turn: ([0, 90, 180, 270] as const)[Math.floor(random() * 4)]! }));

export const samples: Sample<UploadAsked, UploadKey, UploadResponse>[] = [
  {
    title: 'working on paper, photographed',
    content: content(false),
    marks: 400,
    best: { pages: [pageOf('a'), pageOf('b', { turn: 90 })], joined: 0, text: emptyRich },
    partly: { pages: [pageOf('a')], joined: 0, text: emptyRich },
    wrong: null,
    misfit: { pages: [pageOf('a'), pageOf('b')], joined: 0, text: typed('Not asked for.') },
    randomResponse: (random) => ({ pages: randomPages(random), joined: 0, text: emptyRich }),
    secrets: ['germination rates', 'scheme', 'all of the working'],
  },
  {
    title: 'typed or photographed',
    content: content(true),
    marks: 400,
    best: { pages: [], joined: 0, text: typed('Tray one sprouts at 45 in 60, tray two at 51 in 60.') },
    partly: { pages: [pageOf('a')], joined: 0, text: emptyRich },
    wrong: null,
    misfit: { pages: [pageOf('a'), pageOf('a')], joined: 0, text: emptyRich },
    randomResponse: (random) => ({
      pages: randomPages(random),
      joined: Math.floor(random() * 3),
      text: random() < 0.5 ? typed('Three quarters.') : emptyRich,
    }),
    secrets: ['germination rates', 'scheme', 'all of the working'],
  },
];
