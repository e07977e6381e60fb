import type Joi from 'joi';
import { holding, textOf, walked } from '../validation/shapes';
import {
  hasMembers,
  isEither,
  isFlag,
  isList,
  isNumber,
  isOneOf,
  isRecord,
  isText,
  isWhole,
} from '../validation/walks';
import {
  HIGHLIGHTS_LIMIT,
  QUOTE_LIMIT,
  ROUGH_TEXT_LIMIT,
  STROKE_POINTS_LIMIT,
  tints,
  type AidSetting,
  type Drawing,
  type Highlights,
} from './notes';

const place = isWhole(0, 1_000_000);
const highlight = hasMembers({ start: place, end: place, tint: isOneOf(tints), quote: isText(QUOTE_LIMIT) });

export const highlightsSchema = walked<Highlights>(
  isRecord(/^[a-z0-9/-]{1,80}$/i, isList(highlight, { most: HIGHLIGHTS_LIMIT })),
  'record of highlights',
);

const pointsIn = (strokes: Drawing): number => strokes.reduce((sum, stroke) => sum + stroke.length, 0) / 2;

export const drawingSchema = holding<Drawing, Joi.AnySchema<Drawing>>(
  walked<Drawing>(isList(isList(isWhole(0, 1000), { least: 2, most: 4000 }), { most: 3000 }), 'drawing'),
  (strokes) => pointsIn(strokes) <= STROKE_POINTS_LIMIT,
  'has too many points',
);

/** The two places of rough work; one pad belongs to the whole sitting. */
export const roughWorkSchemas: Readonly<Record<string, Joi.AnySchema>> = {
  text: textOf(ROUGH_TEXT_LIMIT),
  drawing: drawingSchema,
};

export const aidSchema = walked<AidSetting>(
  isRecord(/^[a-zA-Z]{1,20}$/, isEither(isFlag, isNumber(-100_000, 100_000), isText(40))),
  'setting of an aid',
);
