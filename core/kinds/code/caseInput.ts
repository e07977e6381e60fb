import { givenValue } from '../../programs/signature';
import type { Value } from '../../programs/value';
import type { CaseRun, Json } from '../evidence';
import type { Fixture, TestCase, Way } from './response';

/** Arguments as values; undefined where they do not fit the function. */
export function argumentsOf(
  way: Extract<Way, { is: 'function' }>,
  input: Json,
): readonly Value[] | undefined {
  if (!Array.isArray(input)) return undefined;
  const { parameters } = way;
  if (parameters !== null && parameters.length !== input.length) return undefined;
  const values = input.map((one, i) => givenValue(one, parameters?.[i]!.type ?? 'any'));
  return values.includes(undefined) ? undefined : (values as Value[]);
}

/** What an engine is given for an input; undefined where the input does not fit the question. */
export function inputFor(way: Way, fixtures: readonly Fixture[], input: Json): string | undefined {
  if (way.is === 'function') {
    const values = argumentsOf(way, input);
    return values && JSON.stringify(values);
  }
  if (typeof input !== 'string') return undefined;
  return way.is === 'streams' ? input : fixtures.find(({ key }) => key === input)?.sql;
}

/** A case as it is run; throws where its input does not fit, which `check` finds before it is published. */
export function caseRun(
  { way, fixtures }: { readonly way: Way; readonly fixtures: readonly Fixture[] },
  { key, input, files }: Pick<TestCase, 'key' | 'input' | 'files'>,
): CaseRun {
  const given = inputFor(way, fixtures, input);
  if (given === undefined) throw new Error(`case ${key}: its input does not fit`);
  return { key, input: given, files };
}
