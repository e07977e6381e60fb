import { circleIn } from '../formulas/evaluate';
import type { Issue } from '../kinds/contract';
import { keyKindOf } from '../kinds/keyKinds';
import { severe } from '../kinds/shared/issues';
import { message } from '../messages/message';
import type { Item } from './paper';

/** Parts that build on a part which is not there, on themselves, or on each other in a circle. */
function issuesOfItem({ parts }: Item, at: number): Issue[] {
  const letters = parts.map((part) => part.key);
  const built = parts.map((part) => [...new Set(keyKindOf(part.kind).buildsOn(part.content))]);
  const issues = built.flatMap((on, k) =>
    on
      .filter((letter) => !letters.includes(letter))
      .map((letter) =>
        severe(['bank', at, 'parts', k, 'content'], message('formula.noPart', { part: letter })),
      ),
  );
  const circle = circleIn(new Map(letters.map((letter, k) => [letter, built[k]!])));
  if (circle)
    issues.push(severe(['bank', at, 'parts'], message('formula.circle', { names: circle.join(' → ') })));
  return issues;
}

export const issuesOfSiblings = (bank: readonly Item[]): Issue[] => bank.flatMap(issuesOfItem);
