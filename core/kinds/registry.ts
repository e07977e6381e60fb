import type { Kind } from './contract';
import { choice } from './choice';
import { code } from './code';
import { gaps } from './gaps';
import { number } from './number';
import { order } from './order';
import { writing } from './writing';

/** Every kind of part there is. A new kind adds its folder and its line here. */
export const kinds = {
  choice,
  code,
  gaps,
  number,
  order,
  writing,
};

export type KindName = keyof typeof kinds;
export type AnyKind = Kind<unknown, unknown, unknown>;

export const kindNames = Object.keys(kinds) as KindName[];

export const isKindName = (name: unknown): name is KindName =>
  typeof name === 'string' && Object.hasOwn(kinds, name);

/**
 * The plug-in of a kind, its types erased. The one unavoidable cast: contents and responses are parsed by the same
 * plug-in before they reach its other functions.
 */
export const kindOf = (name: KindName): AnyKind => kinds[name];
