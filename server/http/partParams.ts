import { objectOf } from '../../core/validation/shapes';
import Joi from 'joi';

/** A part of a paper, as seen from a round: `/:round/:item/:part`. */
export interface PartParams {
  readonly round: number;
  readonly item: string;
  readonly part: string;
}

export const partParams = objectOf<PartParams>({
  round: Joi.number().integer().min(1),
  item: Joi.string().pattern(/^[a-z0-9-]{1,40}$/),
  part: Joi.string().pattern(/^[A-F]$/),
});

export const targetIn = ({ item, part }: PartParams): string => `${item}/${part}`;
