import Joi from 'joi';
import { isExactText } from '../../numbers/exact';
import { anyText, holding, listOf, objectOf, oneOf, textOf, variantOf, whole } from '../../validation/shapes';
import { percent } from '../shared/schemas';
import type { AcceptedFigure, NumberAsked, NumberKey } from './content';
import type { Demand, NumberResponse } from './response';

const figure = holding(Joi.string(), isExactText, 'is not a figure');

type DemandBy<By> = Extract<Demand, { readonly by: By }>;
const demand = variantOf<Demand>('by', [
  ['places', objectOf<DemandBy<'places'>>({ by: oneOf(['places']), places: whole(0, 10) })],
  ['figures', objectOf<DemandBy<'figures'>>({ by: oneOf(['figures']), figures: whole(1, 10) })],
]);

export const askedSchema = objectOf<NumberAsked>({
  before: anyText,
  unit: anyText,
  unitSynonyms: listOf(anyText),
  minusPossible: Joi.boolean(),
  scientific: Joi.boolean(),
  fractions: Joi.boolean(),
  demand: demand.allow(null),
});

const accepted = objectOf<AcceptedFigure>({ figure, percent: percent(1), note: anyText });

export const keySchema = objectOf<NumberKey>({
  tolerance: objectOf<NonNullable<NumberKey['tolerance']>>({
    by: oneOf(['distance', 'share']),
    within: figure,
  }).allow(null),
  accepted: listOf(accepted, { least: 1, most: 50 }),
  also: listOf(figure),
});

export const responseSchema = objectOf<NumberResponse>({ typed: textOf(200) });
