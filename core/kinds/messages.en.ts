import type { KindName } from './kindNames';
import { messages as choice } from './choice/messages.en';
import { messages as code } from './code/messages.en';
import { messages as expression } from './expression/messages.en';
import { messages as gaps } from './gaps/messages.en';
import { messages as gridChoice } from './grid-choice/messages.en';
import { messages as hotArea } from './hot-area/messages.en';
import { messages as match } from './match/messages.en';
import { messages as number } from './number/messages.en';
import { messages as numberLine } from './number-line/messages.en';
import { messages as onPaper } from './on-paper/messages.en';
import { messages as order } from './order/messages.en';
import { messages as plot } from './plot/messages.en';
import { messages as selectText } from './select-text/messages.en';
import { messages as sort } from './sort/messages.en';
import { messages as tableEntry } from './table-entry/messages.en';
import { messages as upload } from './upload/messages.en';
import { messages as writing } from './writing/messages.en';

/** The words of every kind, in English. A new kind adds its line here. */
export const kindMessages = {
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
} satisfies {
  [K in KindName]: Readonly<Record<string, string>>;
};
