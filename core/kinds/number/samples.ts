import type { Random } from '../../random';
import type { Sample } from '../contract';
import type { NumberAsked, NumberKey } from './content';
import type { NumberResponse } from './response';

const asked = { before: '', unitSynonyms: [], scientific: false, fractions: false };
const randomResponse = (random: Random) => ({
  typed: random() < 0.1 ? 'twelve' : ((random() - 0.3) * 200).toFixed(Math.floor(random() * 3)),
});

export const samples: Sample<NumberAsked, NumberKey, NumberResponse>[] = [
  {
    title: 'a share to one decimal place',
    content: {
      asked: { ...asked, unit: '%', minusPossible: false, demand: { by: 'places', places: 1 } },
      key: {
        tolerance: null,
        accepted: [
          { figure: '71.25', percent: 100, note: '171 ÷ 240, to one place' },
          { figure: '0.7', percent: 50, note: 'left as a share of one' },
        ],
        also: [],
      },
    },
    marks: 200,
    best: { typed: '71.3' },
    partly: { typed: '0.7' },
    wrong: { typed: '12.0' },
    misfit: null,
    randomResponse,
    secrets: ['71.25', 'left as a share'],
  },
  {
    title: 'a temperature read from a dial',
    content: {
      asked: { ...asked, unit: '°C', unitSynonyms: ['degrees'], minusPossible: true, demand: null },
      key: {
        tolerance: { by: 'distance', within: '0.5' },
        accepted: [{ figure: '-18', percent: 100, note: '' }],
        also: [],
      },
    },
    marks: 100,
    best: { typed: '−18' },
    partly: null,
    wrong: { typed: '18' },
    misfit: null,
    randomResponse,
    secrets: ['18', '0.5'],
  },
];
