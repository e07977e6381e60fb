import type { CandidateKind } from './contract';
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
import { writing } from './writing/candidate';

/** The candidate's half of every kind of part there is. A new kind adds its line here. */
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
  writing,
};

export type KindName = keyof typeof candidateKinds;
export type AnyCandidateKind = CandidateKind<unknown, unknown>;

export const kindNames = Object.keys(candidateKinds) as KindName[];

export const isKindName = (name: unknown): name is KindName =>
  typeof name === 'string' && Object.hasOwn(candidateKinds, name);

/**
 * The candidate's half of a kind, its types erased. The one unavoidable cast: what is shown and answered is parsed by
 * the same plug-in before it reaches its other functions.
 */
export const candidateKindOf = (name: KindName): AnyCandidateKind => candidateKinds[name];
