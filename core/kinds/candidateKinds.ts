import { words } from '../messages/words';
import { bringKind } from './candidateKindOf';
import type { CandidateKind } from './contract';
import type { KindName } from './kindNames';
import { kindMessages } from './messages.en';
import { choice } from './choice/candidate';
import { code } from './code/candidate';
import { expression } from './expression/candidate';
import { gaps } from './gaps/candidate';
import { gridChoice } from './grid-choice/candidate';
import { hotArea } from './hot-area/candidate';
import { match } from './match/candidate';
import { number } from './number/candidate';
import { numberLine } from './number-line/candidate';
import { onPaper } from './on-paper/candidate';
import { order } from './order/candidate';
import { plot } from './plot/candidate';
import { selectText } from './select-text/candidate';
import { sort } from './sort/candidate';
import { tableEntry } from './table-entry/candidate';
import { upload } from './upload/candidate';
import { writing } from './writing/candidate';

/**
 * The candidate's half of every kind, with its words: for the server, for staff and for tests. A device loads only those
 * that its paper asks (`web/kinds/candidates.ts`). A new kind adds its line here.
 */
export const candidateKinds = {
  choice,
  code,
  expression,
  gaps,
  'grid-choice': gridChoice,
  'hot-area': hotArea,
  match,
  number,
  'number-line': numberLine,
  'on-paper': onPaper,
  order,
  plot,
  'select-text': selectText,
  sort,
  'table-entry': tableEntry,
  upload,
  writing,
} satisfies { [K in KindName]: { readonly name: string } };

for (const kind of Object.values(candidateKinds)) bringKind(kind as CandidateKind<unknown, unknown>);
for (const [area, messages] of Object.entries<Readonly<Record<string, string>>>(kindMessages))
  words(area, messages);
