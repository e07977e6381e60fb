import * as v from 'valibot';
import { message } from '../../messages/message';
import {
  exactOf,
  exactText,
  isExactText,
  roundExact,
  roundToSignificant,
  showExact,
} from '../../numbers/exact';
import { numberFormatOf } from '../../numbers/numberFormat';
import {
  plainKey,
  type Content,
  type Fact,
  type Issue,
  type KeyKind,
  type NamedValues,
  type Place,
} from '../contract';
import { wholeComponent } from '../shared/credits';
import { advice, severe } from '../shared/issues';
import { askedSchema, keySchema, type NumberAsked, type NumberKey } from './content';
import { readTyped } from './readTyped';
import type { NumberResponse, NumberShown } from './response';
import { bestMatch, scoreNumber } from './score';

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

/** The key as a candidate would have entered it. */
function rightResponse({ asked, key }: NumberContent, _: null, { locale }: Place): NumberResponse {
  const best = key.accepted.reduce((a, b) => (b.percent > a.percent ? b : a));
  const value = exactOf(best.figure);
  const { decimal } = numberFormatOf(locale);
  if (!asked.demand) return { typed: showExact(value, decimal) };
  return asked.demand.by === 'places'
    ? { typed: showExact(roundExact(value, asked.demand.places), decimal, asked.demand.places) }
    : { typed: showExact(roundToSignificant(value, asked.demand.figures), decimal) };
}

function facts(content: NumberContent, { typed }: NumberResponse, { locale }: Place): Fact[] {
  const reading = readTyped(content.asked, typed, locale);
  if ('problem' in reading && reading.problem === 'empty') return [];
  const fact = { component: 'whole', type: 'figure' } as const;
  if ('problem' in reading) return [{ ...fact, answer: typed.trim(), right: false }];
  return [
    { ...fact, answer: exactText(reading.read.value), right: bestMatch(content, reading.read) !== null },
  ];
}

export const numberKey: KeyKind<NumberAsked, NumberKey, NumberShown, NumberResponse, null> = {
  ...plainKey,
  name: 'number',
  asked: askedSchema,
  key: keySchema,
  arrangement: v.null(),
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
  values: (content, { typed }, { locale }): NamedValues => {
    const reading = readTyped(content.asked, typed, locale);
    if ('problem' in reading) return {};
    const accepted = bestMatch(content, reading.read)?.percent === 100;
    return { figure: { figure: reading.read.value, accepted } };
  },
  score: scoreNumber,
  rightResponse,
  facts,
  accept: ({ key }, _, answer) => (isExactText(answer) ? { ...key, also: [...key.also, answer] } : null),
};
