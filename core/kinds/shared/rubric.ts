import type { Document } from '../../documents/document';
import { message } from '../../messages/message';
import { sumMarks } from '../../marks';
import type { Component, Criterion, Issue, Level, RubricPoint } from '../contract';
import { severe } from './issues';

interface Named {
  readonly key: string;
  readonly title: string;
}

/** One of several levels is reached; a single criterion of levels is a holistic judgement by bands. */
export interface CriterionOfLevels extends Named {
  readonly levels: readonly Level[];
  /** Marks between two neighbouring levels are possible in such steps, in hundredths; absent for the levels alone. */
  readonly step?: 50 | 100 | undefined;
}

/** Points that are ticked where an answer has them. */
export interface CriterionOfPoints extends Named {
  readonly points: readonly RubricPoint[];
}

/** Any mark up to a maximum, whole or in halves; both in hundredths. */
export interface CriterionOfSteps extends Named {
  readonly most: number;
  readonly step: 50 | 100;
}

export type CriterionAsked = CriterionOfLevels | CriterionOfPoints | CriterionOfSteps;

export interface Rubric {
  /** What assessors are told: the mark scheme in words. */
  readonly scheme: Document;
  /** An answer that would have all marks: for assessors, and on the sheet where right answers are told. */
  readonly modelAnswer?: Document | undefined;
  readonly criteria: readonly CriterionAsked[];
}

/** A criterion as candidates are told of it, and what it is worth. */
export interface ToldCriterion {
  readonly title: string;
  readonly hundredths: number;
}

/** What a criterion is worth. */
export function topOf(criterion: CriterionAsked): number {
  if ('levels' in criterion) return Math.max(...criterion.levels.map((l) => l.hundredths));
  return 'points' in criterion ? sumMarks(criterion.points.map((p) => p.hundredths)) : criterion.most;
}

function judgedBy(criterion: CriterionAsked): Criterion {
  if ('levels' in criterion)
    return { levels: criterion.levels, ...(criterion.step ? { step: criterion.step } : {}) };
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
export type ToldCriteria = readonly ToldCriterion[];

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
