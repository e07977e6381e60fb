import type { KindName } from './candidateKinds';
import type { KeyKind } from './contract';
import { choiceKey } from './choice/key';
import { codeKey } from './code/key';
import { gapsKey } from './gaps/key';
import { numberKey } from './number/key';
import { orderKey } from './order/key';
import { writingKey } from './writing/key';

/** The key's half of every kind. A new kind adds its line here. */
export const keyKinds = {
  choice: choiceKey,
  code: codeKey,
  gaps: gapsKey,
  number: numberKey,
  order: orderKey,
  writing: writingKey,
} satisfies { [K in KindName]: unknown };

export type AnyKeyKind = KeyKind<unknown, unknown, unknown, unknown, unknown>;
/** The key's halves by name; tests have kinds of their own. */
export type KeyKinds = Readonly<Record<string, AnyKeyKind>>;

/** The key's half of a kind, its types erased: contents are parsed by the same plug-in first. */
export const keyKindOf = (name: KindName): AnyKeyKind => keyKinds[name];
