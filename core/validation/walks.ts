/*
 * Rules that walk trees and other long values, where a schema would take microseconds for each node. A rule returns null
 * for a value that fits, or else the path of the first place that does not.
 */
export type Rule = (value: unknown) => string | null;

const HERE = 'its top';

const passes =
  (test: (value: unknown) => boolean): Rule =>
  (value) =>
    test(value) ? null : HERE;

const within = (step: string | number, place: string): string =>
  place === HERE ? String(step) : `${step}.${place}`;

export const isText = (most: number, least = 0): Rule =>
  passes((value) => typeof value === 'string' && value.length <= most && value.length >= least);

export const isMatch = (expression: RegExp): Rule =>
  passes((value) => typeof value === 'string' && expression.test(value));

export const isWhole = (least: number, most: number): Rule =>
  passes((value) => Number.isInteger(value) && (value as number) >= least && (value as number) <= most);

export const isNumber = (least: number, most: number): Rule =>
  passes((value) => typeof value === 'number' && value >= least && value <= most);

export const isFlag: Rule = passes((value) => typeof value === 'boolean');

export const isOneOf = (values: readonly unknown[]): Rule => passes((value) => values.includes(value));

export const orNull =
  (rule: Rule): Rule =>
  (value) =>
    value === null ? null : rule(value);

/** A member that may be missing. */
export const orMissing =
  (rule: Rule): Rule =>
  (value) =>
    value === undefined ? null : rule(value);

export const isAnything: Rule = () => null;

export const isEither =
  (...rules: readonly Rule[]): Rule =>
  (value) =>
    rules.some((rule) => rule(value) === null) ? null : HERE;

export const isList =
  (rule: Rule, { least = 0, most = Infinity } = {}): Rule =>
  (value) => {
    if (!Array.isArray(value) || value.length < least || value.length > most) return HERE;
    for (let i = 0; i < value.length; i += 1) {
      const place = rule(value[i]);
      if (place !== null) return within(i, place);
    }
    return null;
  };

const isPlain = (value: unknown): value is Readonly<Record<string, unknown>> =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

/** An object with these members and no others. */
export const hasMembers =
  (rules: Readonly<Record<string, Rule>>): Rule =>
  (value) => {
    if (!isPlain(value)) return HERE;
    for (const name of Object.keys(value)) if (!Object.hasOwn(rules, name)) return name;
    for (const [name, rule] of Object.entries(rules)) {
      const place = rule(Object.hasOwn(value, name) ? value[name] : undefined);
      if (place !== null) return within(name, place);
    }
    return null;
  };

/** An object of which each member is of one shape, under keys that match. */
export const isRecord =
  (key: RegExp, rule: Rule, most = Infinity): Rule =>
  (value) => {
    if (!isPlain(value)) return HERE;
    const entries = Object.entries(value);
    if (entries.length > most) return HERE;
    for (const [name, inner] of entries) {
      const place = key.test(name) ? rule(inner) : HERE;
      if (place !== null) return within(name.slice(0, 40), place);
    }
    return null;
  };

/** One of several sorts of objects, told apart by a member. The table is asked late, as trees name themselves. */
export const isVariant =
  (member: string, table: () => Readonly<Record<string, Rule>>): Rule =>
  (value) => {
    const sort = isPlain(value) && Object.hasOwn(value, member) ? value[member] : undefined;
    const rules = table();
    return typeof sort === 'string' && Object.hasOwn(rules, sort) ? rules[sort]!(value) : HERE;
  };
