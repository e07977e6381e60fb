import type { Random } from '../../random';
import type { Sample } from '../contract';
import type { NumberLineAsked, NumberLineKey } from './content';
import type { NumberLineResponse, Piece } from './response';

export const piece = (
  from: string | null,
  to: string | null,
  open: { readonly from?: true; readonly to?: true } = {},
): Piece => ({
  from,
  to,
  fromOpen: from === null || open.from === true,
  toOpen: to === null || open.to === true,
});

const axis = { from: '-4', to: '4', step: '1', snaps: 2, label: 'Temperature, °C' };

function randomPiece(random: Random): Piece {
  const place = () => Math.floor(random() * 17) / 2 - 4;
  const [a, b] = [place(), place()].sort((x, y) => x - y) as [number, number];
  if (a === b) return piece(String(a), String(a));
  return {
    from: random() < 0.2 ? null : String(a),
    to: String(b),
    fromOpen: random() < 0.5,
    toOpen: random() < 0.5,
  };
}

export const samples: Sample<NumberLineAsked, NumberLineKey, NumberLineResponse>[] = [
  {
    title: 'an interval and a ray',
    content: {
      asked: { axis, sorts: ['point', 'interval', 'ray'], most: 3 },
      key: { pieces: [piece('-2', '2', { from: true }), piece('3', null)], tolerance: '0' },
    },
    marks: 200,
    best: { pieces: [piece('3', null), piece('-2', '1', { from: true }), piece('1', '2')] },
    partly: null,
    wrong: { pieces: [piece('-2', '2'), piece('3', null)] },
    misfit: { pieces: [piece('1', '-1')] },
    randomResponse: (random) => ({
      pieces: Array.from({ length: Math.floor(random() * 4) }, () => randomPiece(random)),
    }),
    secrets: ['"pieces"'],
  },
];
