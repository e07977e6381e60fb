import { message } from '../../messages/message';
import type { Component, Content, Credit, ScoringInput } from '../contract';
import { creditOf, share, unansweredCredit, weightedComponents } from '../shared/credits';
import { shareOfSeveral } from '../shared/severalRight';
import type { SelectTextAsked, SelectTextKey } from './content';
import { chosenOf, type SelectTextResponse } from './response';

type Passage = SelectTextAsked['passages'][number];

/** One component a passage or column. */
export const passageComponents = ({ passages }: SelectTextAsked, marks: number): Component[] =>
  weightedComponents(
    passages.map(({ key, title, weight }) => ({
      key,
      name: message('author.text', { text: title }),
      weight,
    })),
    marks,
  );

const rightIn = ({ phrases }: Passage, { right }: SelectTextKey) =>
  phrases.filter(({ key }) => right.includes(key)).length;

function scorePassage(
  { key }: Content<SelectTextAsked, SelectTextKey>,
  passage: Passage,
  component: Component,
  response: SelectTextResponse,
): Credit {
  const chosen = chosenOf(passage, response);
  if (chosen.length === 0) return unansweredCredit(component);
  const { limit, phrases } = passage;
  // The page allows no more; what breaks its limit earns nothing.
  if (limit !== null && chosen.length > limit)
    return creditOf(component, share(0, 1), [
      message('select-text.tooMany', { count: limit, title: passage.title }),
    ]);
  const right = rightIn(passage, key);
  const hits = chosen.filter(({ key: one }) => key.right.includes(one)).length;
  const found = { options: phrases.length, right, hits, misses: chosen.length - hits };
  return creditOf(
    component,
    limit === null ? shareOfSeveral('each', found) : share(hits, Math.min(limit, right)),
    [],
  );
}

/** With a limit the share of the right ones chosen; without one each right +1/R, each wrong −1/W, never below 0. */
export const scoreSelectText = ({
  content,
  response,
  place,
}: ScoringInput<SelectTextAsked, SelectTextKey, SelectTextResponse, null>): Credit[] =>
  passageComponents(content.asked, place.marks).map((component, i) =>
    scorePassage(content, content.asked.passages[i]!, component, response),
  );
