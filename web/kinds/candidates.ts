import { bringKind } from '../../core/kinds/candidateKindOf';
import type { CandidateKind } from '../../core/kinds/contract';
import type { KindName } from '../../core/kinds/kindNames';
import { words } from '../words';

function bring<Shown, Response>(
  kind: CandidateKind<Shown, Response>,
  messages: Readonly<Record<string, string>>,
): void {
  bringKind(kind);
  words(kind.name, messages);
}

/** The candidate's half of every kind with its words, each loaded where a paper asks it. A new kind adds its line here. */
const loaders = {
  choice: () =>
    Promise.all([
      import('../../core/kinds/choice/candidate'),
      import('../../core/kinds/choice/messages.en'),
    ]).then(([{ choice }, { messages }]) => bring(choice, messages)),
  code: () =>
    Promise.all([
      import('../../core/kinds/code/candidate'),
      import('../../core/kinds/code/messages.en'),
    ]).then(([{ code }, { messages }]) => bring(code, messages)),
  expression: () =>
    Promise.all([
      import('../../core/kinds/expression/candidate'),
      import('../../core/kinds/expression/messages.en'),
    ]).then(([{ expression }, { messages }]) => bring(expression, messages)),
  gaps: () =>
    Promise.all([
      import('../../core/kinds/gaps/candidate'),
      import('../../core/kinds/gaps/messages.en'),
    ]).then(([{ gaps }, { messages }]) => bring(gaps, messages)),
  'grid-choice': () =>
    Promise.all([
      import('../../core/kinds/grid-choice/candidate'),
      import('../../core/kinds/grid-choice/messages.en'),
    ]).then(([{ gridChoice }, { messages }]) => bring(gridChoice, messages)),
  'hot-area': () =>
    Promise.all([
      import('../../core/kinds/hot-area/candidate'),
      import('../../core/kinds/hot-area/messages.en'),
    ]).then(([{ hotArea }, { messages }]) => bring(hotArea, messages)),
  match: () =>
    Promise.all([
      import('../../core/kinds/match/candidate'),
      import('../../core/kinds/match/messages.en'),
    ]).then(([{ match }, { messages }]) => bring(match, messages)),
  number: () =>
    Promise.all([
      import('../../core/kinds/number/candidate'),
      import('../../core/kinds/number/messages.en'),
    ]).then(([{ number }, { messages }]) => bring(number, messages)),
  'number-line': () =>
    Promise.all([
      import('../../core/kinds/number-line/candidate'),
      import('../../core/kinds/number-line/messages.en'),
    ]).then(([{ numberLine }, { messages }]) => bring(numberLine, messages)),
  'on-paper': () =>
    Promise.all([
      import('../../core/kinds/on-paper/candidate'),
      import('../../core/kinds/on-paper/messages.en'),
    ]).then(([{ onPaper }, { messages }]) => bring(onPaper, messages)),
  order: () =>
    Promise.all([
      import('../../core/kinds/order/candidate'),
      import('../../core/kinds/order/messages.en'),
    ]).then(([{ order }, { messages }]) => bring(order, messages)),
  plot: () =>
    Promise.all([
      import('../../core/kinds/plot/candidate'),
      import('../../core/kinds/plot/messages.en'),
    ]).then(([{ plot }, { messages }]) => bring(plot, messages)),
  'select-text': () =>
    Promise.all([
      import('../../core/kinds/select-text/candidate'),
      import('../../core/kinds/select-text/messages.en'),
    ]).then(([{ selectText }, { messages }]) => bring(selectText, messages)),
  sort: () =>
    Promise.all([
      import('../../core/kinds/sort/candidate'),
      import('../../core/kinds/sort/messages.en'),
    ]).then(([{ sort }, { messages }]) => bring(sort, messages)),
  'table-entry': () =>
    Promise.all([
      import('../../core/kinds/table-entry/candidate'),
      import('../../core/kinds/table-entry/messages.en'),
    ]).then(([{ tableEntry }, { messages }]) => bring(tableEntry, messages)),
  upload: () =>
    Promise.all([
      import('../../core/kinds/upload/candidate'),
      import('../../core/kinds/upload/messages.en'),
    ]).then(([{ upload }, { messages }]) => bring(upload, messages)),
  writing: () =>
    Promise.all([
      import('../../core/kinds/writing/candidate'),
      import('../../core/kinds/writing/messages.en'),
    ]).then(([{ writing }, { messages }]) => bring(writing, messages)),
} satisfies { [K in KindName]: () => Promise<void> };

export const bringCandidateKind = (name: KindName): Promise<void> => loaders[name]();
