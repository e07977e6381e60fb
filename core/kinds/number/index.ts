import { exactOf, roundExact, roundToSignificant, showExact } from '../../numbers/exact';
import { numberFormatOf } from '../../numbers/numberFormat';
import type { NumberProblem } from '../../numbers/readNumber';
import { noPlace, plainKind, type Kind, type Place, type Progress } from '../contract';
import { plural } from '../shared/scores';
import {
  contentSchema,
  responseSchema,
  type NumberContent,
  type NumberResponse,
  type NumberShown,
} from './content';
import { readTyped } from './reading';
import { scoreNumber } from './score';

const COMPLAINTS: Record<Exclude<NumberProblem, 'empty'>, string> = {
  letters: 'Only a figure belongs here: digits, a minus sign, a decimal sign',
  'several-numbers': 'These are several numbers; enter one',
  'two-separators': 'The commas and points do not fit together',
  ambiguous: 'This can be read in two ways; leave out the sign between thousands, or write more decimals',
  'incomplete-groups': 'The groups of digits are not complete; write the figure without spaces',
  sign: 'The minus sign belongs in front',
  unfinished: 'A digit is missing',
  'too-long': 'This is longer than any figure asked for',
  'scientific-not-asked': 'Write the figure out, without a power of ten',
  'fraction-not-asked': 'Enter a decimal figure, not a fraction',
  'exponent-too-large': 'This exponent is too large',
  'division-by-zero': 'A fraction cannot have 0 below the line',
};

const WORDS = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'];
const inWords = (n: number) => WORDS[n] ?? String(n);

function formComplaint(shown: NumberShown, typed: string): string | null {
  const reading = readTyped(shown, typed);
  if ('problem' in reading) return reading.problem === 'empty' ? null : COMPLAINTS[reading.problem];
  const { value, places, figures } = reading.read;
  if (value.over < 0n && !shown.minusPossible) return 'No minus sign is possible here';
  if (!shown.asked) return null;
  const [asked, has, what] =
    'places' in shown.asked
      ? [shown.asked.places, places ?? 0, 'decimal place']
      : [shown.asked.figures, figures?.most ?? 0, 'significant figure'];
  const fits =
    'figures' in shown.asked && figures !== null && figures.least <= asked && asked <= figures.most;
  if (asked === has || fits) return null;
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

function rightAnswer(content: NumberContent, { locale }: Place = noPlace): string {
  const best = content.accepted.reduce((a, b) => (b.percent > a.percent ? b : a));
  const key = exactOf(best.figure);
  const form = asked(content);
  const { decimal } = numberFormatOf(locale);
  const text = !form
    ? showExact(key, decimal)
    : 'places' in form
      ? showExact(roundExact(key, form.places), decimal, form.places)
      : showExact(roundToSignificant(key, form.figures), decimal);
  return withLabels(content, text);
}

export const number: Kind<NumberContent, NumberShown, NumberResponse> = {
  ...plainKind,
  name: 'number',
  judge: 'machine',
  content: contentSchema,
  response: responseSchema,
  show: (c, place = noPlace) => ({
    ...{ before: c.before, unit: c.unit, unitSynonyms: [...c.unitSynonyms] },
    ...{ minusPossible: c.minusPossible, scientific: c.scientific, fractions: c.fractions },
    ...{ asked: asked(c), locale: place.locale },
  }),
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
