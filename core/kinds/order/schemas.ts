import Joi from 'joi';
import { anyText, listOf, matching, objectOf, oneOf } from '../../validation/shapes';
import type { OrderAsked, OrderKey } from './content';
import type { OrderResponse } from './response';

const MOST_ITEMS = 10;
const key = matching(/^[a-z0-9-]{1,20}$/);
const item = objectOf<OrderAsked['items'][number]>({ key, text: anyText });

export const askedSchema = objectOf<OrderAsked>({
  items: listOf(item, { least: 3, most: MOST_ITEMS }),
  rule: oneOf(['exact', 'pairs', 'rank']),
  shuffle: Joi.boolean(),
});

export const keySchema = objectOf<OrderKey>({ right: listOf(key) });

export const arrangementSchema = listOf(key);

export const responseSchema = objectOf<OrderResponse>({ sequence: listOf(key, { most: MOST_ITEMS }) });
