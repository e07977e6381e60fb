import { message } from '../../messages/message';
import type { Component, Content, Credit, ScoringInput } from '../contract';
import { assign } from '../shared/assign';
import { creditOf, share, weightedComponents } from '../shared/credits';
import { inOrderOf } from '../shared/entries';
import type { HotAreaAsked, HotAreaKey } from './content';
import { sizeOf, type HotAreaResponse } from './response';
import { holds } from './shapes';

/** One component a right area. */
export const areaComponents = (
  { asked, key }: Content<HotAreaAsked, HotAreaKey>,
  marks: number,
): Component[] =>
  weightedComponents(
    inOrderOf(asked.areas, key.right).map((area) => ({
      key: area.key,
      name: message('author.text', { text: area.text }),
      weight: area.weight,
    })),
    marks,
  );

/** The right areas that a response earns: each once, each mark for one, as many as can be. */
export function earnedAreas(
  { asked, key }: Content<HotAreaAsked, HotAreaKey>,
  { chosen, marks }: HotAreaResponse,
): string[] {
  const right = inOrderOf(asked.areas, key.right);
  if (asked.mode === 'choose')
    return right.filter((area) => chosen.includes(area.key)).map(({ key: k }) => k);
  const taken = assign(right.length, marks.length, (area, mark) => holds(right[area]!.shape, marks[mark]!));
  return right.filter((_, i) => taken[i] !== null).map((area) => area.key);
}

/** Area by area; marks outside cost nothing, since their number is limited. */
export function scoreHotArea({
  content,
  response,
  place,
}: ScoringInput<HotAreaAsked, HotAreaKey, HotAreaResponse, null>): Credit[] {
  const components = areaComponents(content, place.marks);
  const { limit } = content.asked;
  // The page allows no more; what breaks its limit earns nothing.
  if (sizeOf(response) > limit)
    return components.map((one) =>
      creditOf(one, share(0, 1), [message('hot-area.tooMany', { count: limit })]),
    );
  const earned = earnedAreas(content, response);
  return components.map((one) => creditOf(one, share(earned.includes(one.key) ? 1 : 0, 1), []));
}
