import Joi from 'joi';
import { listOf, objectOf, oneOf, recordOf, walked, whole } from '../../validation/shapes';
import { isList, isMatch } from '../../validation/walks';
import { axisSchema, decimalText, ENTRY_KEY, weightedEntryMembers } from '../shared/schemas';
import type { ObjectAsked, PlotAsked, PlotKey } from './content';
import { SORTS, type Drawn, type Place, type PlotResponse } from './response';

const MOST_OBJECTS = 8;
const MOST_POINTS = 20;

const object = objectOf<ObjectAsked>({
  ...weightedEntryMembers,
  sort: oneOf(SORTS),
  count: whole(1, MOST_POINTS).allow(null),
});

export const askedSchema = objectOf<PlotAsked>({
  x: axisSchema,
  y: axisSchema,
  objects: listOf(object, { least: 1, most: MOST_OBJECTS }),
});

const place = walked<Place>(
  isList(isMatch(/^-?\d{1,9}(\.\d{1,9})?$/), { least: 2, most: 2 }),
  'place on the plane',
);
const drawn = objectOf<Drawn>({
  points: listOf(place, { most: MOST_POINTS }),
  closed: Joi.boolean(),
  boundary: oneOf(['solid', 'dashed']),
  side: place.allow(null),
});
const objects = recordOf(ENTRY_KEY, drawn, MOST_OBJECTS);

export const keySchema = objectOf<PlotKey>({
  objects,
  tolerance: recordOf(ENTRY_KEY, decimalText, MOST_OBJECTS),
});

export const responseSchema = objectOf<PlotResponse>({ objects });
