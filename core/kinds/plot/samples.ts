import type { Random } from '../../random';
import type { Sample } from '../contract';
import type { PlotAsked, PlotKey } from './content';
import type { Drawn, Place, PlotResponse } from './response';

const axis = (label: string) => ({ from: '-5', to: '5', step: '1', snaps: 2, label });
const asked: PlotAsked = {
  x: axis('day'),
  y: axis('°C'),
  objects: [
    { key: 's', text: 'line s', sort: 'line', count: null },
    { key: 'p', text: 'point P', sort: 'point', count: null },
    { key: 'cold', text: 'the cold region', sort: 'half-plane', count: null },
    { key: 'bed', text: 'the bed', sort: 'polygon', count: null },
  ],
};
export const drawing = (points: Place[], more: Partial<Drawn> = {}): Drawn => ({
  points,
  closed: false,
  boundary: 'solid',
  side: null,
  ...more,
});
const square: Place[] = [
  ['0', '0'],
  ['2', '0'],
  ['2', '2'],
  ['0', '2'],
];
const right: PlotKey['objects'] = {
  s: drawing([
    ['-3', '-2'],
    ['1', '2'],
  ]),
  p: drawing([['1.5', '-4']]),
  cold: drawing(
    [
      ['0', '1'],
      ['4', '-1'],
    ],
    { boundary: 'dashed', side: ['0', '-3'] },
  ),
  bed: drawing(square, { closed: true }),
};

const half = (random: Random) => String(Math.floor(random() * 21) / 2 - 5);
const place = (random: Random): Place => [half(random), half(random)];
function randomResponse(random: Random): PlotResponse {
  const some = (most: number) =>
    Array.from({ length: Math.floor(random() * (most + 1)) }, () => place(random));
  return {
    objects: {
      s: drawing(some(2)),
      p: drawing(some(1)),
      cold: drawing(some(2), { side: random() < 0.5 ? null : place(random) }),
      bed: drawing(some(6), { closed: random() < 0.5 }),
    },
  };
}

export const samples: Sample<PlotAsked, PlotKey, PlotResponse>[] = [
  {
    title: 'a line, a point, a half-plane and a polygon',
    content: { asked, key: { objects: right, tolerance: { p: '0.5' } } },
    marks: 401,
    best: {
      objects: {
        s: drawing([
          ['4', '5'],
          ['0', '1'],
        ]),
        p: drawing([['1.5', '-4.5']]),
        cold: drawing(
          [
            ['2', '0'],
            ['0', '1'],
          ],
          { boundary: 'dashed', side: ['-5', '-5'] },
        ),
        bed: drawing([...square].reverse(), { closed: true }),
      },
    },
    partly: { objects: { s: right.s!, p: drawing([['0', '0']]) } },
    wrong: {
      objects: {
        s: drawing([
          ['0', '0'],
          ['1', '2'],
        ]),
        p: drawing([['-1.5', '4']]),
      },
    },
    misfit: { objects: { p: drawing([['1', '6']]) } },
    randomResponse,
    secrets: ['"1.5","-4"'],
  },
];
