import { documentSchema } from '../../documents/documentSchema';
import { listOf, objectOf, oneOf, variantOf, whole } from '../../validation/shapes';
import { entryKey, weightedEntryMembers } from '../shared/schemas';
import type { AreaAsked, HotAreaAsked, HotAreaKey } from './content';
import type { HotAreaResponse } from './response';
import type { Ellipse, PicturePoint, Polygon, Rectangle, Shape } from './shapes';

const MOST_AREAS = 30;
const coordinate = whole(0, 1000);
const length = whole(1, 1000);
const place = { x: coordinate, y: coordinate };
const point = objectOf<PicturePoint>(place);

const shape = variantOf<Shape>('is', [
  ['rectangle', objectOf<Rectangle>({ is: oneOf(['rectangle']), ...place, width: length, height: length })],
  ['ellipse', objectOf<Ellipse>({ is: oneOf(['ellipse']), ...place, across: length, down: length })],
  ['polygon', objectOf<Polygon>({ is: oneOf(['polygon']), points: listOf(point, { least: 3, most: 40 }) })],
]);

export const askedSchema = objectOf<HotAreaAsked>({
  picture: documentSchema,
  mode: oneOf(['choose', 'mark']),
  areas: listOf(objectOf<AreaAsked>({ ...weightedEntryMembers, shape }), { least: 2, most: MOST_AREAS }),
  limit: whole(1, MOST_AREAS),
});

export const keySchema = objectOf<HotAreaKey>({ right: listOf(entryKey, { least: 1 }) });

export const responseSchema = objectOf<HotAreaResponse>({
  chosen: listOf(entryKey, { most: MOST_AREAS }),
  marks: listOf(point, { most: MOST_AREAS }),
});
