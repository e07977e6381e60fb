import Joi from 'joi';
import type { Rule } from './walks';

/*
 * Schemas of what comes from outside: requests, files, stored documents, what helper processes return. Only the server
 * and authoring load them; what the desk reads was checked by the server.
 */

/** A schema for each member of `T`, of the member's own type. */
export type Members<T> = { readonly [K in keyof T]-?: Joi.AnySchema<T[K]> };

const mayBeMissing = (schema: Joi.AnySchema): boolean =>
  schema.$_getFlag('presence') === 'optional' || schema.$_getFlag('default') !== undefined;

/** The schema of an object with these members and no others. A member is required unless it is optional or has a default. */
export function objectOf<T>(members: Members<T>): Joi.ObjectSchema<T> {
  const required = Object.entries<Joi.AnySchema>(members).map(([name, schema]) => [
    name,
    mayBeMissing(schema) ? schema.optional() : schema.required(),
  ]);
  return Joi.object<T, true>(Object.fromEntries(required) as Joi.StrictSchemaMap<T>);
}

/** A string of at most `most` characters, at least `least`. */
export const textOf = (most: number, least = 0): Joi.StringSchema =>
  least === 0 ? Joi.string().allow('').max(most) : Joi.string().min(least).max(most);

/** A string of any length. */
export const anyText = Joi.string().allow('');

export const matching = (expression: RegExp): Joi.StringSchema => Joi.string().pattern(expression);

/** SHA-256, hex in lower case. */
export const sha256 = matching(/^[0-9a-f]{64}$/);

export const whole = (least: number, most: number = Number.MAX_SAFE_INTEGER): Joi.NumberSchema =>
  Joi.number().integer().min(least).max(most);

/** One of some strings or numbers. */
export const oneOf = <const Value extends string | number>(values: readonly Value[]): Joi.AnySchema<Value> =>
  Joi.any<Value>().valid(...values);

/** Null and nothing else. */
export const nothing: Joi.AnySchema<null> = Joi.any<null>().valid(null);

interface Length {
  readonly least?: number;
  readonly most?: number;
}

const isTooMany = (value: unknown, most: number): boolean =>
  typeof value === 'object' &&
  value !== null &&
  (Array.isArray(value) ? value.length : Object.keys(value).length) > most;

/**
 * Counts the entries of a list or a record before its schema sees any of them: each takes microseconds, and a device may
 * send a hundred thousand. Joi's own rules of length come after the entries.
 */
const bounded = {
  type: 'bounded',
  flags: { most: {}, within: {} },
  messages: { 'bounded.most': 'has more than {{#most}} entries' },
  validate(value: unknown, { schema, state, prefs, error }: Joi.CustomHelpers): unknown {
    const most = schema.$_getFlag('most') as number;
    if (isTooMany(value, most)) return { value, errors: [error('bounded.most', { most })] };
    const within = schema.$_getFlag('within') as Joi.AnySchema;
    return within.$_validate(value, state, prefs);
  },
  jsonSchema: (schema: Inner, described: object, mode: string, options: unknown) => ({
    ...described,
    ...(schema.$_getFlag('within') as Inner).$_jsonSchema(mode, options),
  }),
};
/** Methods that Joi has and its types leave out. */
interface Inner extends Joi.AnySchema {
  $_jsonSchema(mode: string, options: unknown): object;
}
interface Bounded<T> extends Omit<Joi.AnySchema<T>, '$_setFlag'> {
  $_setFlag(name: string, value: unknown): this & Joi.AnySchema<T>;
}
const extended = Joi.extend(bounded) as { readonly bounded: <T>() => Bounded<T> };

const boundedBy = <T>(most: number, within: Joi.AnySchema<T>): Joi.AnySchema<T> =>
  extended.bounded<T>().$_setFlag('most', most).$_setFlag('within', within);

/** A list. With a most, its length is checked before its entries. */
export function listOf<T>(entry: Joi.AnySchema<T>, { least = 0, most }: Length = {}): Joi.AnySchema<T[]> {
  const list = least > 0 ? Joi.array().min(least) : Joi.array();
  return most === undefined ? list.items(entry) : boundedBy(most, list.max(most).items(entry));
}

/** A record of at most `most` values of one shape, by keys that match an expression. */
export const recordOf = <T>(
  key: RegExp,
  value: Joi.AnySchema<T>,
  most: number,
): Joi.AnySchema<Record<string, T>> => boundedBy(most, Joi.object<Record<string, T>>().pattern(key, value));

/** A union of objects that a member tells apart: its schemas, by the value of that member. */
export const variantOf = <T>(
  member: string & keyof T,
  schemas: readonly (readonly [value: string, schema: Joi.ObjectSchema])[],
): Joi.AlternativesSchema<T> =>
  Joi.alternatives().conditional<T, never>(`.${member}`, {
    switch: schemas.map(([is, then]) => ({ is, then })),
  });

/** A tree, or a value too long for a schema: one rule walks it (`walks.ts`). `name` stands in the JSON Schema. */
export const walked = <T>(rule: Rule, name: string): Joi.AnySchema<T> =>
  Joi.any<T>()
    .description(name)
    .custom((value: unknown, { error }) => {
      const place = rule(value);
      return place === null ? value : error('any.custom', { place, name });
    })
    .messages({ 'any.custom': 'is no {{#name}}: see {{#place}}' });

/** A value for which a condition beyond its shape holds. Values that the schema allows by name (`allow`) are not asked. */
export const holding = <T, Schema extends Joi.AnySchema<T>>(
  schema: Schema,
  holds: (value: T) => boolean,
  problem: string,
): Schema =>
  schema
    .custom((value: T, { error }) => (holds(value) ? value : error('any.custom')))
    .messages({ 'any.custom': problem });

/** Something that is wrong, and where. */
export interface Problem {
  readonly path: readonly (string | number)[];
  readonly problem: string;
}

export type Checked<T> = { readonly value: T } | { readonly problems: readonly Problem[] };

const STRICT = { convert: false, presence: 'required', errors: { label: false } } as const;

/** Checks a value. Nothing of it is converted. With `all` every problem is listed, otherwise the first. */
export function check<T>(schema: Joi.AnySchema<T>, value: unknown, { all = false } = {}): Checked<T> {
  const result = schema.validate(value, { ...STRICT, abortEarly: !all });
  return result.error
    ? { problems: result.error.details.map(({ path, message }) => ({ path, problem: message })) }
    : { value: result.value };
}

export const isOf = (schema: Joi.AnySchema, value: unknown): boolean => 'value' in check(schema, value);

/** Problems in one line, for errors that people in charge of the server read. */
export const summaryOf = (problems: readonly Problem[]): string =>
  problems.map(({ path, problem }) => [path.join('.'), problem].filter(Boolean).join(' ')).join('; ');

/** What was checked of stored data does not fit its schema. */
export class MisshapenError extends Error {}

/** The checked value. Throws a `MisshapenError` where it does not fit. */
export function parsed<T>(schema: Joi.AnySchema<T>, value: unknown): T {
  const checked = check(schema, value);
  if ('problems' in checked) throw new MisshapenError(summaryOf(checked.problems));
  return checked.value;
}
