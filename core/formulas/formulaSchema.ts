import { walked } from '../validation/shapes';
import {
  hasMembers,
  isList,
  isMatch,
  isOneOf,
  isVariant,
  isWhole,
  orNull,
  type Rule,
} from '../validation/walks';
import type { Condition, Formula } from './formula';

const name = isMatch(/^[a-z][a-z0-9]{0,19}(_[a-z][a-z0-9]{0,19})?$/);

const side = isVariant('is', () => formulas);

const formula = (is: string, members: Readonly<Record<string, Rule>>): Rule =>
  hasMembers({ is: isOneOf([is]), ...members });
const operation = (is: string): Rule => formula(is, { left: side, right: side });
const several = (is: string): Rule => formula(is, { of: isList(side, { least: 1, most: 60 }) });

const condition = hasMembers({
  is: isOneOf(['same', 'other', 'below', 'above', 'upTo', 'from']),
  left: side,
  right: side,
});

const formulas: Readonly<Record<Formula['is'], Rule>> = {
  figure: formula('figure', { text: isMatch(/^\d{1,40}(\.\d{1,40})?$/) }),
  named: formula('named', { name }),
  sibling: formula('sibling', { part: isMatch(/^[A-F]$/), name }),
  negative: formula('negative', { of: side }),
  absolute: formula('absolute', { of: side }),
  plus: operation('plus'),
  minus: operation('minus'),
  times: operation('times'),
  over: operation('over'),
  sum: several('sum'),
  least: several('least'),
  most: several('most'),
  round: formula('round', { of: side, places: isWhole(0, 10) }),
  if: formula('if', { when: condition, then: side, otherwise: side }),
};

export const formulaSchema = walked<Formula>(side, 'formula');
export const formulaOrNull = walked<Formula | null>(orNull(side), 'formula or null');
export const conditionSchema = walked<Condition>(condition, 'condition');
