import type { Document } from '../../documents/document';
import { shuffled, type Random } from '../../random';
import { SMALL_PICTURE_HASH } from '../../testing/smallPicture';
import type { Sample } from '../contract';
import type { HotAreaAsked, HotAreaKey } from './content';
import type { HotAreaResponse } from './response';

const picture: Document = {
  format: 1,
  blocks: [{ type: 'picture', file: SMALL_PICTURE_HASH, description: 'A cut through a seed', caption: null }],
};
const areas: HotAreaAsked['areas'] = [
  { key: 'coat', text: 'The outer layer', shape: { is: 'rectangle', x: 0, y: 0, width: 200, height: 1000 } },
  { key: 'root', text: 'The lower tip', shape: { is: 'ellipse', x: 500, y: 800, across: 100, down: 50 } },
  {
    key: 'leaf',
    text: 'The folded part',
    shape: {
      is: 'polygon',
      points: [
        { x: 400, y: 200 },
        { x: 600, y: 200 },
        { x: 500, y: 400 },
      ],
    },
  },
];
const randomPoint = (random: Random) => ({
  x: Math.floor(random() * 1001),
  y: Math.floor(random() * 1001),
});

export const samples: Sample<HotAreaAsked, HotAreaKey, HotAreaResponse>[] = [
  {
    title: 'two of three areas chosen',
    content: { asked: { picture, mode: 'choose', areas, limit: 2 }, key: { right: ['root', 'leaf'] } },
    marks: 201,
    best: { chosen: ['leaf', 'root'], marks: [] },
    partly: { chosen: ['leaf', 'coat'], marks: [] },
    wrong: { chosen: ['coat'], marks: [] },
    misfit: { chosen: ['coat', 'leaf', 'root'], marks: [] },
    randomResponse: (random) => ({
      chosen: shuffled(
        areas.map(({ key }) => key),
        random,
      ).slice(0, Math.floor(random() * 3)),
      marks: [],
    }),
    secrets: ['"right":["root","leaf"]'],
  },
  {
    title: 'marks set anywhere',
    content: { asked: { picture, mode: 'mark', areas, limit: 2 }, key: { right: ['root', 'coat'] } },
    marks: 200,
    best: {
      chosen: [],
      marks: [
        { x: 500, y: 850 },
        { x: 200, y: 1000 },
      ],
    },
    partly: {
      chosen: [],
      marks: [
        { x: 100, y: 100 },
        { x: 150, y: 100 },
      ],
    },
    wrong: { chosen: [], marks: [{ x: 500, y: 300 }] },
    misfit: { chosen: ['root'], marks: [] },
    randomResponse: (random) => ({
      chosen: [],
      marks: Array.from({ length: Math.floor(random() * 3) }, () => randomPoint(random)),
    }),
    secrets: ['"right":["root","coat"]'],
  },
];
