import * as v from 'valibot';
import { documentSchema } from '../../documents/documentSchema';
import { message } from '../../messages/message';
import { sumMarks } from '../../marks';
import type { Component, Criterion, Issue } from '../contract';
import { severe } from './issues';

const hundredths = v.pipe(v.number(), v.integer(), v.minValue(0));
const level = v.strictObject({ hundredths, label: v.string(), says: v.string() });
const point = v.strictObject({ hundredths: v.pipe(hundredths, v.minValue(1)), says: v.string() });
const named = { key: v.pipe(v.string(), v.regex(/^[a-z][a-z0-9-]{0,19}$/)), title: v.string() };
const criterion = v.union([
  /** One of several levels is reached; a single criterion of levels is a holistic judgement by bands. */
  v.strictObject({ ...named, levels: v.pipe(v.array(level), v.minLength(2), v.maxLength(9)) }),
  /** Points that are ticked where an answer has them. */
  v.strictObject({ ...named, points: v.pipe(v.array(point), v.minLength(1), v.maxLength(30)) }),
  /** Any mark up to a maximum, whole or in halves. */
  v.strictObject({ ...named, most: v.pipe(hundredths, v.minValue(1)), step: v.picklist([50, 100]) }),
]);
type CriterionAsked = v.InferOutput<typeof criterion>;

export const rubricSchema = v.strictObject({
  /** What assessors are told: the mark scheme in words. */
  scheme: documentSchema,
  /** An answer that would have all marks: for assessors, and on the sheet where right answers are told. */
  modelAnswer: v.optional(documentSchema),
  criteria: v.pipe(v.array(criterion), v.minLength(1), v.maxLength(30)),
});
export type Rubric = v.InferOutput<typeof rubricSchema>;

/** What a criterion is worth. */
export function topOf(criterion: CriterionAsked): number {
  if ('levels' in criterion) return Math.max(...criterion.levels.map((l) => l.hundredths));
  return 'points' in criterion ? sumMarks(criterion.points.map((p) => p.hundredths)) : criterion.most;
}

function judgedBy(criterion: CriterionAsked): Criterion {
  if ('levels' in criterion) return { levels: criterion.levels };
  return 'points' in criterion
    ? { levels: null, points: criterion.points }
    : { levels: null, step: criterion.step };
}

export const maximumOfRubric = ({ criteria }: Rubric): number =>
  criteria.reduce((sum, one) => sum + topOf(one), 0);

/** The components that people decide: one a criterion, named by the author. */
export const rubricComponents = ({ criteria }: Rubric): Component[] =>
  criteria.map((one) => ({
    key: one.key,
    by: 'people',
    of: topOf(one),
    name: message('author.text', { text: one.title }),
    criterion: judgedBy(one),
  }));

/** By what people judge, as candidates are told: the criteria and what each is worth. */
export const toldCriteriaSchema = v.pipe(
  v.array(v.strictObject({ title: v.string(), hundredths: v.pipe(v.number(), v.integer(), v.minValue(1)) })),
  v.minLength(1),
  v.maxLength(30),
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
  if (new Set(rubric.criteria.map(({ key }) => key)).size !== rubric.criteria.length)
    issues.push(severe(['key', 'rubric'], message('author.criterionTwice')));
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
