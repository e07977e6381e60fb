// Code that works with keys needs the candidate's half of every kind too.
import './candidateKinds';
import type { KindName } from './kindNames';
import type { KeyKind } from './contract';
import { choiceKey } from './choice/key';
import { codeKey } from './code/key';
import { expressionKey } from './expression/key';
import { gapsKey } from './gaps/key';
import { gridChoiceKey } from './grid-choice/key';
import { hotAreaKey } from './hot-area/key';
import { matchKey } from './match/key';
import { numberKey } from './number/key';
import { numberLineKey } from './number-line/key';
import { onPaperKey } from './on-paper/key';
import { orderKey } from './order/key';
import { plotKey } from './plot/key';
import { selectTextKey } from './select-text/key';
import { sortKey } from './sort/key';
import { tableEntryKey } from './table-entry/key';
import { uploadKey } from './upload/key';
import { writingKey } from './writing/key';

/** The key's half of every kind. A new kind adds its line here. */
export const keyKinds = {
  choice: choiceKey,
  code: codeKey,
  expression: expressionKey,
  gaps: gapsKey,
  'grid-choice': gridChoiceKey,
  'hot-area': hotAreaKey,
  match: matchKey,
  number: numberKey,
  'number-line': numberLineKey,
  'on-paper': onPaperKey,
  order: orderKey,
  plot: plotKey,
  'select-text': selectTextKey,
  sort: sortKey,
  'table-entry': tableEntryKey,
  upload: uploadKey,
  writing: writingKey,
} satisfies { [K in KindName]: unknown };

export type AnyKeyKind = KeyKind<unknown, unknown, unknown, unknown, unknown>;
/** The key's halves by name; tests have kinds of their own. */
export type KeyKinds = Readonly<Record<string, AnyKeyKind>>;

/** The key's half of a kind, its types erased: contents are parsed by the same plug-in first. */
export const keyKindOf = (name: KindName): AnyKeyKind => keyKinds[name];
