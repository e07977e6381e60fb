import Joi from 'joi';
import { documentSchema } from '../../documents/documentSchema';
import {
  anyText,
  listOf,
  matching,
  objectOf,
  oneOf,
  textOf,
  whole,
  type Members,
} from '../../validation/shapes';
import type { Level, RubricPoint } from '../contract';
import type { Axis } from './axis';
import type { Entry, WeightedEntry } from './entries';
import type {
  CriterionAsked,
  CriterionOfLevels,
  CriterionOfPoints,
  CriterionOfSteps,
  Rubric,
  ToldCriterion,
} from './rubric';

/** The key of an entry: none that every object has. */
export const ENTRY_KEY = /^(?!constructor$)[a-z0-9-]{1,40}$/;
export const entryKey = matching(ENTRY_KEY);

export const entryMembers: Members<Entry> = { key: entryKey, text: textOf(500) };
export const entrySchema = objectOf<Entry>(entryMembers);

/** The weight of a component beside the others of its part. */
export const weight = whole(1, 1000).optional();

export const weightedEntryMembers: Members<WeightedEntry> = { ...entryMembers, weight };
export const weightedEntrySchema = objectOf<WeightedEntry>(weightedEntryMembers);

/** A share of marks in per cent. */
export const percent = (least: number): Joi.NumberSchema => whole(least, 100);

/** A figure on an axis. */
export const decimalText = matching(/^-?\d{1,9}(\.\d{1,9})?$/);

export const axisSchema = objectOf<Axis>({
  from: decimalText,
  to: decimalText,
  step: decimalText,
  snaps: whole(1, 10),
  label: textOf(80),
});

const named = { key: matching(/^[a-z][a-z0-9-]{0,19}$/), title: anyText };
const level = objectOf<Level>({ hundredths: whole(0), label: anyText, says: anyText });
const point = objectOf<RubricPoint>({ hundredths: whole(1), says: anyText });

const criterion = Joi.alternatives<CriterionAsked>(
  objectOf<CriterionOfLevels>({
    ...named,
    levels: listOf(level, { least: 2, most: 9 }),
    step: oneOf([50, 100]).optional(),
  }),
  objectOf<CriterionOfPoints>({ ...named, points: listOf(point, { least: 1, most: 30 }) }),
  objectOf<CriterionOfSteps>({ ...named, most: whole(1), step: oneOf([50, 100]) }),
);

export const rubricSchema = objectOf<Rubric>({
  scheme: documentSchema,
  modelAnswer: documentSchema.optional(),
  criteria: listOf<CriterionAsked>(criterion, { least: 1, most: 30 }),
});

export const toldCriteriaSchema = listOf(objectOf<ToldCriterion>({ title: anyText, hundredths: whole(1) }), {
  least: 1,
  most: 30,
});
