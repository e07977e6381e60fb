import { divisor } from '../polynomial';
import { isWhole, type NumberTree, type Tree } from '../tree';

/** Without signs and groups that no one sees. */
export function plain(tree: Tree): Tree {
  let one = tree;
  while (one.is === 'plus' || (one.is === 'group' && one.invisible)) one = one.of;
  return one;
}

/** Without its minus, too. */
export function unsigned(tree: Tree): Tree {
  const one = plain(tree);
  return one.is === 'negative' ? plain(one.of) : one;
}

export const wholeIn = (tree: Tree): NumberTree | null => {
  const one = plain(tree);
  return isWhole(one) ? one : null;
};

export const valueOf = (tree: Tree): bigint => {
  const one = wholeIn(tree);
  if (!one) throw new RangeError('not a whole number');
  return BigInt(one.text);
};

/** Have two whole numbers no common divisor but 1? */
export const isLowest = (over: Tree, under: Tree): boolean => divisor(valueOf(over), valueOf(under)) === 1n;
