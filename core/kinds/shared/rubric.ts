import * as v from 'valibot';
import { documentSchema } from '../../documents/documentSchema';
import { message } from '../../messages/message';
import type { Component, Issue } from '../contract';
import { severe } from './issues';

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

/** By what people judge, as candidates are told: the criteria and what each is worth. */
export const toldCriteriaSchema = v.pipe(
  v.array(v.strictObject({ title: v.string(), hundredths: v.pipe(v.number(), v.integer(), v.minValue(1)) })),
  v.minLength(1),
  v.maxLength(8),
);
export type ToldCriteria = v.InferOutput<typeof toldCriteriaSchema>;

export const copyOfCriteria = (criteria: ToldCriteria): ToldCriteria =>
  criteria.map(({ title, hundredths: of }) => ({ title, hundredths: of }));

/** Are candidates told the very criteria, and what each is worth? */
export const criteriaMatch = (told: ToldCriteria, { criteria }: Rubric): boolean =>
  told.length === criteria.length &&
  criteria.every((one, i) => one.title === told[i]!.title && topOf(one) === told[i]!.hundredths);

/** What is wrong where all marks of a part are given by a rubric. */
export function issuesOfRubric(rubric: Rubric, told: ToldCriteria, marks: number): Issue[] {
  const issues: Issue[] = [];
  if (maximumOfRubric(rubric) !== marks) issues.push(severe(['key', 'rubric'], message('author.rubricSum')));
  if (!criteriaMatch(told, rubric))
    issues.push(severe(['asked', 'criteria'], message('author.criteriaDiffer')));
  return issues;
}

/** What an author begins with. */
export const blankRubric = () => ({
  scheme: '',
  criteria: [
    { key: 'a', title: '', levels: [0, 100].map((of) => ({ hundredths: of, label: '', says: '' })) },
  ],
});
