import { placeOf } from '../forms/drawForm';
import { issuesOf } from '../kinds/authoring';
import type { Issue } from '../kinds/contract';
import { keyKindOf } from '../kinds/keyKinds';
import type { Item } from './paper';

/** What is wrong with the questions themselves, by their kinds, each with its path in the paper. */
export const issuesOfBank = (bank: readonly Item[]): Issue[] =>
  bank.flatMap((item, i) =>
    item.parts.flatMap((part, k) =>
      issuesOf(keyKindOf(part.kind), part.content, placeOf(item, part, 'en')).map((issue) => ({
        ...issue,
        path: ['bank', i, 'parts', k, 'content', ...issue.path],
      })),
    ),
  );
