import type { RichNode } from '../core/kinds/shared/richText';
import { shuffled, type Random } from '../core/random';

const doc = (...paragraphs: string[]): { text: RichNode } => ({
  text: {
    type: 'doc',
    content: paragraphs.map((text) => ({ type: 'paragraph', content: [{ type: 'text', text }] })),
  },
});

const python = (program: string) => ({ language: 'python', programs: { python: { 'program.py': program } } });
const javascript = (program: string) => ({
  language: 'javascript',
  programs: { javascript: { 'program.js': program } },
});

const OPENINGS = [
  'On the night of 9 March, at 21:40, the supply to bay 3 dipped and the alarm rang at an empty desk.',
  'At 21:40 on 9 March bay 3 lost its supply. Nobody was at the desk to hear the alarm.',
  'Bay 3 lost power in the evening of 9 March and nobody noticed until the morning.',
];
const MIDDLES = [
  'The reserve cooler said it was ready but did not take over, so the bay warmed to 11 °C for about nine hours. Lots K-2 and K-4 were still inside; K-1 and K-3 had been moved the evening before.',
  'By 06:50 the bay stood at 11 °C. K-2 and K-4 were in it. The cooler was then started by hand and the bay was cold again at 09:10.',
  'It got warm in there. Some lots were in the bay and some were not, and the cooler was started in the morning.',
];
const REASONS = [
  'The first count of K-4 gave 163 and the second 148, because one of us had counted split seed coats. By the rule of root length only 148 count.',
  'The two counts of K-4 do not agree, so at least one of them did not follow the rule of root length.',
  'K-4 was counted twice and the numbers are different.',
];
const ACTIONS = [
  'First, recount K-2 and K-4 by the rule. Then mark both lots as warmed, have the alarm ring the person on call, and test the reserve cooler every month.',
  'I suggest that K-4 is counted again and re-sown if it fails, and that the alarm rings somebody.',
  'Somebody should look at the cooler and be more careful in future.',
];
const CLOSINGS = [
  'I have told the early shift and left this note in the book.',
  'The log of the night is kept with this note.',
  'That is all I know of it.',
];

const note = (from: number, random: Random) => {
  const pick = (list: string[]) =>
    list[Math.min(list.length - 1, Math.max(0, from + Math.floor(random() * 2 - 0.5)))]!;
  return doc(`${pick(OPENINGS)} ${pick(MIDDLES)}`, pick(REASONS), `${pick(ACTIONS)} ${pick(CLOSINGS)}`);
};

const STRONGEST = [
  python(
    'def strongest(lots):\n    best, best_share = "", -1.0\n    for lot in lots:\n        if lot["sown"] == 0:\n            continue\n        share = lot["up"] / lot["sown"]\n        if share > best_share:\n            best, best_share = lot["name"], share\n    return best\n',
  ),
  javascript(
    'function strongest(lots) {\n  let best = "", share = 0;\n  for (const l of lots) {\n    if (l.sown > 0 && l.up / l.sown > share) {\n      best = l.name;\n      share = l.up / l.sown;\n    }\n  }\n  return best;\n}\n',
  ),
  python('def strongest(lots):\n    return max(lots, key=lambda lot: lot["up"] / lot["sown"])["name"]\n'),
];

const HALF = [
  python(
    'def days_to_half(counts, sown):\n    half, before = sown / 2, 0\n    for day, count in enumerate(counts):\n        if count >= half:\n            return day + (half - before) / (count - before)\n        before = count\n    return -1\n',
  ),
  javascript(
    'function days_to_half(counts, sown) {\n  const half = sown / 2;\n  for (let i = 0; i < counts.length; i++) if (counts[i] >= half) return i + 1;\n  return -1;\n}\n',
  ),
  python('def days_to_half(counts, sown):\n    return counts.index(sown / 2) + 1\n'),
];

const chosen = (...keys: string[]) => ({ chosen: keys });
const typed = (text: string) => ({ typed: text });

/** For each part, answers from the best to the weakest. */
const GRADED: Record<string, unknown[]> = {
  'parts-of-a-seed/A': [chosen('root'), chosen('shoot')],
  'which-trays/A': [chosen('t12', 't14'), chosen('t12', 't13'), chosen('t11')],
  'reading-the-dial/A': [typed('-19'), typed('−18'), typed('19')],
  'a-day-of-counting/A': [
    { sequence: ['take', 'read', 'count', 'write', 'back'] },
    { sequence: ['take', 'count', 'read', 'write', 'back'] },
    { sequence: ['read', 'take', 'write', 'count', 'back'] },
  ],
  'tray-14/A': [chosen('k-2', 'k-4'), chosen('k-2', 'k-3'), chosen('k-1')],
  'tray-14/B': [typed('71.3'), typed('71,2'), typed('0.71')],
  'tray-14/C': [
    { filled: { a: 'kept', b: '65', c: 'tenth' } },
    { filled: { a: 'kept', b: '65', c: 'third' } },
    { filled: { a: 're-sown', b: '60' } },
  ],
  'the-label/A': [
    { filled: { a: 'K-4', b: 'sand', c: 'coats' } },
    { filled: { a: 'K-4', b: 'soil', c: 'coats' } },
    { filled: { a: 'K-2', b: 'sand' } },
  ],
  'moisture/A': [typed('0.38'), typed('0,38'), typed('3.8')],
  'moisture/B': [typed('7.6'), typed('8.2'), typed('0.076')],
  'strongest-lot/A': STRONGEST,
  'days-to-half/A': HALF,
};

/**
 * The answers of one simulated candidate of an ability in 0..1: able ones pick better answers and leave less out. The
 * same random gives the same script.
 */
export function simulateAnswers(ability: number, random: Random): { target: string; response: unknown }[] {
  const answers = Object.entries(GRADED).flatMap(([target, graded]) => {
    const slip = random() - ability;
    if (slip > 0.55) return [];
    const step = slip < 0 ? 0 : Math.min(graded.length - 1, 1 + Math.floor(slip * 4));
    return [{ target, response: graded[step] }];
  });
  const writing = { target: 'incident-note/A', response: note(Math.round((1 - ability) * 2), random) };
  return shuffled([...answers, writing], random);
}
