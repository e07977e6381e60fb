import { message } from '../../messages/message';
import {
  exactOf,
  exactText,
  isExactText,
  magnitude,
  roundExact,
  roundToSignificant,
  showExact,
  type Exact,
} from '../../numbers/exact';
import { numberFormatOf } from '../../numbers/numberFormat';
import type { AnswerInput, Content, Fact, Issue, KeyKind, NamedValues, Place } from '../contract';
import { plainKey } from '../plainKey';
import { wholeComponent } from '../shared/credits';
import { advice, severe } from '../shared/issues';
import type { NumberAsked, NumberKey } from './content';
import { readEntry } from './readEntry';
import type { NumberResponse, NumberShown } from './response';
import { bestMatch, scoreNumber } from './score';
import { askedSchema, keySchema, responseSchema } from './schemas';

type NumberContent = Content<NumberAsked, NumberKey>;

function check({ asked, key }: NumberContent): Issue[] {
  const issues: Issue[] = [];
  if (asked.demand && key.tolerance) issues.push(severe(['key', 'tolerance'], message('number.twoRules')));
  if (!key.accepted.some(({ percent }) => percent === 100))
    issues.push(severe(['key', 'accepted'], message('number.noFullMarks')));
  if (!asked.minusPossible && key.accepted.some(({ figure }) => exactOf(figure).over < 0n))
    issues.push(severe(['asked', 'minusPossible'], message('number.minusNeeded')));
  if (asked.minusPossible && key.accepted.every(({ figure }) => exactOf(figure).over >= 0n))
    issues.push(advice(['asked', 'minusPossible'], message('number.minusNotNeeded')));
  return issues;
}

/** A value to so many significant figures, with the noughts behind the point that they need: 5 to two is 5.0. */
function showFigures(value: Exact, figures: number, decimal: '.' | ','): string {
  const rounded = roundToSignificant(value, figures);
  return showExact(rounded, decimal, Math.max(0, figures - 1 - (magnitude(rounded) ?? 0)));
}

/** The key as a candidate would have entered it. */
function rightResponse({ asked, key }: NumberContent, _: null, { locale }: Place): NumberResponse {
  const best = key.accepted.reduce((a, b) => (b.percent > a.percent ? b : a));
  const value = exactOf(best.figure);
  const { decimal } = numberFormatOf(locale);
  if (!asked.demand) return { typed: showExact(value, decimal) };
  return asked.demand.by === 'places'
    ? { typed: showExact(roundExact(value, asked.demand.places), decimal, asked.demand.places) }
    : { typed: showFigures(value, asked.demand.figures, decimal) };
}

function facts({ content, response, place }: AnswerInput<NumberAsked, NumberKey, NumberResponse>): Fact[] {
  const entry = readEntry(content.asked, response.typed, place.locale);
  if (entry.is === 'nothing') return [];
  const fact = { component: 'whole', type: 'figure' } as const;
  // Whether it is right, people decide.
  if (entry.is === 'unreadable') return [{ ...fact, answer: response.typed.trim(), right: null }];
  return [{ ...fact, answer: exactText(entry.read.value), right: bestMatch(content, entry) !== null }];
}

export const numberKey: KeyKind<NumberAsked, NumberKey, NumberShown, NumberResponse, null> = {
  ...plainKey,
  name: 'number',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  blank: () => ({
    asked: {
      before: '',
      unit: '',
      unitSynonyms: [],
      minusPossible: false,
      scientific: false,
      fractions: false,
      demand: null,
    },
    key: { tolerance: null, accepted: [{ figure: '', percent: 100, note: '' }], also: [] },
  }),
  check,
  arrange: () => null,
  show: (asked, _, place) => ({
    before: asked.before,
    unit: asked.unit,
    unitSynonyms: [...asked.unitSynonyms],
    minusPossible: asked.minusPossible,
    scientific: asked.scientific,
    fractions: asked.fractions,
    demand: asked.demand,
    locale: place.locale,
  }),
  components: (_, marks) => wholeComponent(marks),
  values: ({ content, response, place }): NamedValues => {
    const entry = readEntry(content.asked, response.typed, place.locale);
    if (entry.is !== 'number' && entry.is !== 'other-form') return {};
    return { figure: { figure: entry.read.value, accepted: bestMatch(content, entry)?.percent === 100 } };
  },
  score: scoreNumber,
  rightResponse,
  facts,
  accept: ({ key }, _, answer) => (isExactText(answer) ? { ...key, also: [...key.also, answer] } : null),
};
