import Joi from 'joi';
import { listOf, objectOf, oneOf, whole } from '../../validation/shapes';
import { axisSchema, decimalText } from '../shared/schemas';
import type { NumberLineAsked, NumberLineKey } from './content';
import { SORTS, type NumberLineResponse, type Piece } from './response';

const MOST_PIECES = 12;

export const askedSchema = objectOf<NumberLineAsked>({
  axis: axisSchema,
  sorts: listOf(oneOf(SORTS), { least: 1 }),
  most: whole(1, MOST_PIECES),
});

const end = decimalText.allow(null);
const piece = objectOf<Piece>({ from: end, to: end, fromOpen: Joi.boolean(), toOpen: Joi.boolean() });
const pieces = listOf(piece, { most: MOST_PIECES });

export const keySchema = objectOf<NumberLineKey>({ pieces, tolerance: decimalText });

export const responseSchema = objectOf<NumberLineResponse>({ pieces });
