import Joi from 'joi';

/** A part of a paper, as seen from a round: `/:round/:item/:part`. */
export interface PartParams {
  readonly round: number;
  readonly item: string;
  readonly part: string;
}

export const partParams = Joi.object<PartParams>({
  round: Joi.number().integer().min(1).required(),
  item: Joi.string()
    .pattern(/^[a-z0-9-]{1,40}$/)
    .required(),
  part: Joi.string()
    .pattern(/^[A-F]$/)
    .required(),
});

export const targetIn = ({ item, part }: PartParams): string => `${item}/${part}`;
