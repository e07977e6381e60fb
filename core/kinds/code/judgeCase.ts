import { sameValue } from '../../programs/compareValues';
import { sameText } from '../../programs/compareText';
import { typedValue } from '../../programs/signature';
import { figureOf, isList, isNumber, type Value } from '../../programs/value';
import type { CaseOutcome, Json } from '../evidence';
import type { Comparison, Way } from './response';

export type CaseVerdict = 'accepted' | 'wrong' | 'error' | 'tooSlow' | 'tooMuchMemory' | 'tooMuchOutput';

/** The expected value; undefined where it does not fit the question. */
export function expectedValue(way: Way, expected: Json): Value | undefined {
  if (way.is === 'streams') return typeof expected === 'string' ? expected : undefined;
  return typedValue(expected, way.is === 'function' ? way.returns : 'any');
}

const member = (value: Value, name: string): readonly Value[] | null => {
  if (!isList(value) || value[0] !== 'm') return null;
  const of = value[value.indexOf(name, 1) + 1];
  return of !== undefined && isList(of) ? of : null;
};

function sameRows(expected: Value, got: Value, { within, anyOrder, columnNames }: Comparison): boolean {
  const names = [expected, got].map((value) => member(value, 'columns'));
  const rows = [expected, got].map((value) => member(value, 'rows'));
  if (!rows[0] || !rows[1] || !names[0] || !names[1]) return expected === got;
  const same = columnNames
    ? names[0].join('\n') === names[1].join('\n')
    : names[0].length === names[1].length;
  return same && sameValue(rows[0], rows[1], { within, anyOrder });
}

interface Judging {
  readonly way: Way;
  readonly comparison: Comparison;
}

/** Is what a program came to the expected value, as the question compares? */
export function isExpected({ way, comparison }: Judging, expected: Value, got: Value): boolean {
  if (way.is === 'query') return sameRows(expected, got, comparison);
  if (way.is === 'function') return sameValue(expected, got, comparison);
  return typeof got === 'string' && typeof expected === 'string' && sameText(expected, got, comparison);
}

const TROUBLES = {
  error: 'error',
  'too-slow': 'tooSlow',
  'too-much-memory': 'tooMuchMemory',
  'too-much-output': 'tooMuchOutput',
} as const;

/** The verdict on a case that no checker decides. */
export function judgeCase(judging: Judging, expected: Json, outcome: CaseOutcome): CaseVerdict {
  const value = expectedValue(judging.way, expected);
  return value === undefined && outcome.result === 'returned'
    ? 'wrong'
    : verdictOn(judging, value ?? null, outcome);
}

/** The same where the expected value has been read already. */
export function verdictOn(judging: Judging, expected: Value, outcome: CaseOutcome): CaseVerdict {
  if (outcome.result !== 'returned') return TROUBLES[outcome.result];
  return isExpected(judging, expected, outcome.value) ? 'accepted' : 'wrong';
}

/** What a checker found: the share that is earned, in hundredths, and a line of its reason. */
export interface Checked {
  readonly share: number;
  readonly reason: string;
}

const REASON_KEPT = 200;

/** Reads what a checker returned: true or false, or a record of `share` (0 to 1) and `reason`; null for anything else. */
export function readChecked(outcome: CaseOutcome): Checked | null {
  if (outcome.result !== 'returned') return null;
  const { value } = outcome;
  if (typeof value === 'boolean') return { share: value ? 100 : 0, reason: '' };
  if (!isList(value) || value[0] !== 'm') return null;
  const of = (name: string) => {
    const at = value.findIndex((one, i) => i % 2 === 1 && one === name);
    return at < 0 ? undefined : value[at + 1];
  };
  const [given, reason = ''] = [of('share'), of('reason')];
  if (given === undefined || !isNumber(given) || typeof reason !== 'string') return null;
  const figure = figureOf(...given);
  if (figure === null) return null;
  const share = Math.round((Number(figure.over) * 100) / Number(figure.under));
  if (!(share >= 0 && share <= 100)) return null;
  return { share, reason: reason.replace(/\s+/g, ' ').trim().slice(0, REASON_KEPT) };
}
