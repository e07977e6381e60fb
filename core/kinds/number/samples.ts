import type { Sample } from '../contract';
import type { NumberContent, NumberResponse } from './content';

export const samples: Sample<NumberContent, NumberResponse>[] = [
  {
    title: 'a share to one decimal place',
    content: {
      before: '',
      unit: '%',
      unitSynonyms: [],
      minusPossible: false,
      scientific: false,
      fractions: false,
      tolerance: { by: 'places', places: 1 },
      accepted: [
        { figure: '71.25', percent: 100, note: '171 ÷ 240, to one place' },
        { figure: '0.7', percent: 50, note: 'left as a share of one' },
      ],
    },
    maximum: 200,
    best: { typed: '71,3' },
    partly: { typed: '0.7' },
    secrets: ['71.25', 'left as a share'],
  },
  {
    title: 'a temperature read from a dial',
    content: {
      before: '',
      unit: '°C',
      unitSynonyms: ['degrees'],
      minusPossible: true,
      scientific: false,
      fractions: false,
      tolerance: { by: 'distance', within: '0.5' },
      accepted: [{ figure: '-18', percent: 100, note: '' }],
    },
    maximum: 100,
    best: { typed: '−18' },
    secrets: ['18', '0.5'],
  },
];
