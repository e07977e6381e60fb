import type { Random } from '../../random';
import type { Sample } from '../contract';
import type { SortAsked, SortKey } from './content';
import type { SortResponse } from './response';

const chips = ['rush', 'holly', 'kale', 'hazel'].map((key) => ({ key, text: `Sea ${key}` }));
const bins = [
  { key: 'dry', text: 'Dry store', limit: null },
  { key: 'damp', text: 'Damp sand', limit: 2 },
];

/** Every chip into one bin or none, the damp one never overfull. */
function dealt(random: Random): SortResponse {
  const placed: Record<string, string[]> = { dry: [], damp: [] };
  for (const { key } of chips) {
    const bin = ['dry', 'damp', null][Math.floor(random() * 3)];
    if (bin && (bin === 'dry' || placed.damp!.length < 2)) placed[bin]!.push(key);
  }
  return { bins: placed };
}

export const samples: Sample<SortAsked, SortKey, SortResponse>[] = [
  {
    title: 'each once, one left over',
    content: {
      asked: { chips, fromSource: false, bins, often: false, leftOver: true, shuffle: true },
      key: { bins: { dry: ['kale', 'rush'], damp: ['hazel'] } },
    },
    marks: 400,
    best: { bins: { dry: ['rush', 'kale'], damp: ['hazel'] } },
    partly: { bins: { dry: ['rush', 'kale', 'holly'] } },
    wrong: { bins: { dry: ['hazel', 'holly'], damp: ['kale', 'rush'] } },
    misfit: { bins: { damp: ['hazel', 'kale', 'rush'] } },
    randomResponse: dealt,
    secrets: ['"damp":["hazel"]'],
  },
  {
    title: 'chips used often',
    content: {
      asked: {
        chips: chips.slice(0, 2),
        fromSource: false,
        bins,
        often: true,
        leftOver: false,
        shuffle: false,
      },
      key: { bins: { dry: ['rush', 'holly'], damp: ['holly'] } },
    },
    marks: 201,
    best: { bins: { dry: ['holly', 'rush'], damp: ['holly'] } },
    partly: { bins: { dry: ['holly', 'rush'] } },
    wrong: { bins: { dry: ['holly'], damp: ['rush'] } },
    misfit: { bins: { dry: ['holly', 'holly'] } },
    randomResponse: (random) => ({
      bins: Object.fromEntries(
        bins.map(({ key }) => [key, chips.slice(0, 2).flatMap((c) => (random() < 0.5 ? [c.key] : []))]),
      ),
    }),
    secrets: ['"damp":["holly"]'],
  },
];
