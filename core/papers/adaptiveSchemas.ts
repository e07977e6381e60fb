import Joi from 'joi';
import type { LevelBand, Scale } from '../adaptive/level';
import type { TopicShare } from '../adaptive/rules';
import type { Prior } from '../measures/ability';
import { listOf, objectOf, textOf, whole } from '../validation/shapes';
import type { AdaptiveSection, Calibration, ItemMeasures } from './paper';

const topic = textOf(80, 1).description('A topic, as the section names it.');
/** On the scale of abilities: beyond it no item tells anything. */
const logits = Joi.number().min(-6).max(6);

const calibration = objectOf<Calibration>({
  a: Joi.number().min(0.1).max(5).description('Discrimination.'),
  thresholds: listOf(logits, { least: 1, most: 20 }).description(
    'Difficulty in logits, one figure for each mark of the item.',
  ),
  persons: whole(0).description('People whose answers it was calibrated on.'),
});

export const measuresSchema = objectOf<ItemMeasures>({
  topic,
  difficulty: Joi.number().min(1).max(5).description('The author’s estimate, 1 (easy) to 5.'),
  calibration: calibration.allow(null),
});

export const adaptiveSchema = objectOf<AdaptiveSection>({
  prior: objectOf<Prior>({ mean: logits, sd: Joi.number().min(0.1).max(5) }).description(
    'What is taken of a candidate before the first answer, in logits.',
  ),
  targetError: Joi.number()
    .min(0.05)
    .max(2)
    .description('The section ends once the standard error is no more than this, in logits.'),
  leastLength: whole(1, 200).description('Questions that are asked in any case.'),
  greatestLength: whole(1, 200).description('Questions that are asked at most.'),
  topics: listOf(objectOf<TopicShare>({ topic, share: Joi.number().min(0).max(1) }), {
    least: 1,
    most: 40,
  }).description('Topics and their shares of the questions, 1 in all.'),
  best: whole(1, 50).description('One of so many best questions is asked, by chance.'),
  exposureLimit: Joi.number()
    .min(0.01)
    .max(1)
    .description('The share of candidates who may be asked the same question.'),
  scale: objectOf<Scale>({
    mean: Joi.number().min(-10_000).max(10_000),
    step: Joi.number().min(0.01).max(10_000),
  }).description('A result is mean + step × ability.'),
  levels: listOf(objectOf<LevelBand>({ title: textOf(80, 1), from: Joi.number() }), {
    least: 1,
    most: 12,
  }).description('From the lowest, each from a value of the scale.'),
});
