import * as v from 'valibot';
import { documentSchema } from '../../documents/documentSchema';
import { message } from '../../messages/message';
import type { Component } from '../contract';

const hundredths = v.pipe(v.number(), v.integer(), v.minValue(0));
const level = v.strictObject({ hundredths, label: v.string(), says: v.string() });
const criterion = v.strictObject({
  key: v.pipe(v.string(), v.regex(/^[a-z]$/)),
  title: v.string(),
  levels: v.pipe(v.array(level), v.minLength(2), v.maxLength(9)),
});

export const rubricSchema = v.strictObject({
  /** What assessors are told: the mark scheme in words. */
  scheme: documentSchema,
  criteria: v.pipe(v.array(criterion), v.minLength(1), v.maxLength(8)),
});
export type Rubric = v.InferOutput<typeof rubricSchema>;

const topOf = ({ levels }: Rubric['criteria'][number]) => Math.max(...levels.map((l) => l.hundredths));

export const maximumOfRubric = ({ criteria }: Rubric): number =>
  criteria.reduce((sum, one) => sum + topOf(one), 0);

/** The components that people decide: one a criterion, named by the author. */
export const rubricComponents = ({ criteria }: Rubric): Component[] =>
  criteria.map((one) => ({
    key: one.key,
    by: 'people',
    of: topOf(one),
    name: message('author.text', { text: one.title }),
    criterion: { levels: one.levels },
  }));

/** Are candidates told the very criteria, and what each is worth? */
export const criteriaMatch = (
  told: readonly { readonly title: string; readonly hundredths: number }[],
  { criteria }: Rubric,
): boolean =>
  told.length === criteria.length &&
  criteria.every((one, i) => one.title === told[i]!.title && topOf(one) === told[i]!.hundredths);
