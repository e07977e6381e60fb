import {
  decimal,
  parseDecimal,
  roundTo,
  roundToFigures,
  showDecimal,
  significantFigures,
} from '../../numbers/decimal';
import { plainKind, type Kind, type Progress } from '../contract';
import { plural } from '../shared/scores';
import {
  contentSchema,
  responseSchema,
  type NumberContent,
  type NumberResponse,
  type NumberShown,
} from './content';
import { scoreNumber } from './score';

const COMPLAINTS = {
  letters: 'Only digits, a minus and one comma or point belong here',
  'two-separators': 'There are two decimal separators; leave one',
  sign: 'The minus belongs in front',
  unfinished: 'A digit is missing',
  'too-long': 'This is longer than any figure asked for',
} as const;

const WORDS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];
const inWords = (n: number) => WORDS[n] ?? String(n);

function formComplaint(shown: NumberShown, typed: string): string | null {
  const given = parseDecimal(typed);
  if (typeof given === 'string') return given === 'empty' ? null : COMPLAINTS[given];
  if (given.digits < 0n && !shown.minusPossible) return 'No minus sign is possible here';
  if (!shown.asked) return null;
  const [asked, has, what] =
    'places' in shown.asked
      ? [shown.asked.places, given.places, 'decimal place']
      : [shown.asked.figures, significantFigures(given), 'significant figure'];
  if (asked === has) return null;
  const noun = asked === 1 ? `${what} is` : `${what}s are`;
  return `${inWords(asked).replace(/^./, (c) => c.toUpperCase())} ${noun} asked; this has ${inWords(has)}`;
}

function progress(shown: NumberShown, { typed }: NumberResponse): Progress {
  if (typed.trim() === '') return { state: 'empty', missing: 'Enter a figure' };
  const complaint = formComplaint(shown, typed);
  return complaint ? { state: 'part', missing: complaint } : { state: 'done', missing: null };
}

function asked({ tolerance }: NumberContent): NumberShown['asked'] {
  if (tolerance.by === 'places') return { places: tolerance.places };
  return tolerance.by === 'figures' ? { figures: tolerance.figures } : null;
}

const withLabels = (shown: { before: string; unit: string }, text: string) =>
  [shown.before, text, shown.unit].filter(Boolean).join(' ');

function rightAnswer(content: NumberContent): string {
  const key = decimal(content.accepted[0]!.figure);
  const form = asked(content);
  const shaped = !form
    ? key
    : 'places' in form
      ? roundTo(key, form.places)
      : roundToFigures(key, form.figures);
  return withLabels(content, showDecimal(shaped));
}

export const number: Kind<NumberContent, NumberShown, NumberResponse> = {
  ...plainKind,
  name: 'number',
  judge: 'machine',
  content: contentSchema,
  response: responseSchema,
  show: (c) => ({ before: c.before, unit: c.unit, minusPossible: c.minusPossible, asked: asked(c) }),
  empty: () => ({ typed: '' }),
  misfit: () => null,
  progress,
  ruleInWords: (shown) =>
    !shown.asked
      ? null
      : 'places' in shown.asked
        ? `Give ${plural(shown.asked.places, 'decimal place', 'decimal places')}.`
        : `Give ${plural(shown.asked.figures, 'significant figure', 'significant figures')}.`,
  score: scoreNumber,
  asText: (shown, { typed }) => (typed.trim() ? withLabels(shown, typed.trim()) : ''),
  rightAnswer,
  statistics: (_, { typed }) => (typed.trim() ? [`figure:${typed.trim()}`] : []),
};
