import { message } from '../../messages/message';
import type { Component, Content, Credit, ScoringInput } from '../contract';
import { creditOf, share, unansweredCredit, weightedComponents } from '../shared/credits';
import { hasTwice } from '../shared/entries';
import { shareOfSeveral } from '../shared/severalRight';
import type { GridChoiceArrangement, GridChoiceAsked, GridChoiceKey } from './content';
import { chosenIn, type GridChoiceResponse } from './response';

/** One component a statement, in the author's order. */
export const rowComponents = ({ statements }: GridChoiceAsked, marks: number): Component[] =>
  weightedComponents(
    statements.map(({ key, text, weight }) => ({ key, name: message('author.text', { text }), weight })),
    marks,
  );

export function isRightRow({ key }: Content<unknown, GridChoiceKey>, row: string, chosen: readonly string[]) {
  const right = key.rows[row] ?? [];
  return chosen.length === right.length && right.every((one) => chosen.includes(one));
}

function scoreRow(
  { asked, key }: Content<GridChoiceAsked, GridChoiceKey>,
  component: Component,
  chosen: readonly string[],
): Credit {
  const right = key.rows[component.key] ?? [];
  // A statement to which nothing applies is rightly left empty: the grid as a whole was answered.
  if (chosen.length === 0)
    return right.length === 0 ? creditOf(component, share(1, 1), []) : unansweredCredit(component);
  // The page allows one only; what breaks its limit earns nothing.
  if (hasTwice(chosen) || (asked.mode === 'one' && chosen.length > 1))
    return creditOf(component, share(0, 1), [message('grid-choice.onlyOne')]);
  const hits = chosen.filter((one) => right.includes(one)).length;
  const found = { options: asked.categories.length, right: right.length, hits, misses: chosen.length - hits };
  const rule = asked.mode === 'one' || right.length === 0 ? 'all-or-nothing' : asked.rule;
  return creditOf(component, shareOfSeveral(rule, found), []);
}

/** Row by row: `2-domain.md`, “Details by kind”. */
export const scoreGridChoice = ({
  content,
  response,
  place,
}: ScoringInput<GridChoiceAsked, GridChoiceKey, GridChoiceResponse, GridChoiceArrangement>): Credit[] =>
  rowComponents(content.asked, place.marks).map((component) =>
    scoreRow(content, component, chosenIn(response, component.key)),
  );
