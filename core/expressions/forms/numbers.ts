import { divisor } from '../polynomial';
import { everyTree, type Tree } from '../tree';
import { isLowest, plain, unsigned, valueOf, wholeIn } from './shared';

/** Null where it cannot be told. */
export interface FormFound {
  readonly is: boolean | null;
  readonly why: string;
}

export const yes: FormFound = { is: true, why: '' };
export const no = (why: string): FormFound => ({ is: false, why });
export const cannotTell: FormFound = { is: null, why: 'cannot tell' };

/** A whole number, or a fraction of whole numbers in lowest terms with one sign at the most. */
export function simplestFraction(tree: Tree): FormFound {
  const one = unsigned(tree);
  if (wholeIn(one)) return yes;
  if (one.is === 'mixed') return no('a mixed number');
  if (one.is !== 'quotient' || one.how === 'divide') return no('not a fraction');
  const over = plain(one.over);
  if (over.is === 'negative' && plain(tree).is === 'negative') return no('two signs');
  const above = over.is === 'negative' ? plain(over.of) : over;
  if (!wholeIn(above)) return no('the numerator is not whole');
  if (!wholeIn(one.under)) return no('the denominator is not a positive whole number');
  if (valueOf(one.under) === 1n) return no('the denominator is 1');
  if (valueOf(above) === 0n) return no('the numerator is 0');
  return isLowest(above, one.under) ? yes : no('not in lowest terms');
}

/** A mixed number in lowest terms, a whole number, or a fraction below 1 in lowest terms. */
export function mixedNumber(tree: Tree): FormFound {
  const one = unsigned(tree);
  if (wholeIn(one)) return yes;
  if (one.is === 'mixed') {
    if (!isLowest(one.over, one.under)) return no('not in lowest terms');
    return valueOf(one.whole) === 0n ? no('the whole part is 0') : yes;
  }
  const isFraction =
    one.is === 'quotient' && one.how === 'fraction' && wholeIn(one.over) && wholeIn(one.under);
  if (one.is !== 'quotient' || !isFraction || valueOf(one.over) >= valueOf(one.under))
    return no('not a mixed number');
  return isLowest(one.over, one.under) ? yes : no('not in lowest terms');
}

export function decimal(tree: Tree): FormFound {
  const one = unsigned(tree);
  return one.is === 'number' && one.repeating === null ? yes : no('not a decimal');
}

/** a × 10ⁿ with a from 1 to below 10. */
export function standardForm(tree: Tree): FormFound {
  const one = unsigned(tree);
  const fault = no('not a figure times a power of ten');
  if (one.is !== 'product' || one.how === 'implicit' || one.of.length !== 2) return fault;
  const [first, power] = one.of.map(plain) as [Tree, Tree];
  if (first.is !== 'number' || first.repeating !== null || power.is !== 'power') return fault;
  if (wholeIn(power.base)?.text !== '10') return fault;
  const exponent = plain(power.exponent);
  if (!wholeIn(exponent.is === 'negative' ? exponent.of : exponent)) return fault;
  const [digits] = first.text.split('.') as [string];
  return digits.length === 1 && digits !== '0' ? yes : no('the first factor is not from 1 to 10');
}

function isSquareFree(value: bigint): boolean {
  for (let p = 2n; p * p <= value && p < 100_000n; p++) if (value % (p * p) === 0n) return false;
  return true;
}

/** What stands under a root, where it is a square-free whole number from 2; else what is wrong. */
function rootKey(tree: Tree): { readonly key: string } | { readonly why: string } {
  const one = plain(tree);
  if (one.is !== 'root') return { why: 'not a root' };
  if (one.index && wholeIn(one.index)?.text !== '2') return { why: 'not a square root' };
  if (!wholeIn(one.of)) return { why: 'not a whole number under the root' };
  const inside = valueOf(one.of);
  return inside < 2n || !isSquareFree(inside) ? { why: 'not square-free' } : { key: inside.toString() };
}

/** A whole number, or a fraction in lowest terms, before a root. */
function isCoefficient(tree: Tree): boolean {
  const one = plain(tree);
  if (wholeIn(one)) return true;
  if (one.is !== 'quotient' || one.how !== 'fraction') return false;
  const whole = wholeIn(one.over) && wholeIn(one.under);
  return !!whole && isLowest(one.over, one.under) && valueOf(one.under) > 1n;
}

/** A root, or a whole number times one, over a whole number. */
function quotientKey(over: Tree, under: Tree): ReturnType<typeof rootKey> {
  const above = unsigned(over);
  const factor = above.is === 'product' && above.of.length === 2 ? wholeIn(above.of[0]!) : null;
  const root = factor && above.is === 'product' ? above.of[1]! : above;
  if (plain(root).is !== 'root') return { why: 'not a sum of roots' };
  const common = divisor(factor ? BigInt(factor.text) : 1n, valueOf(under));
  if (common !== 1n || valueOf(under) === 1n) return { why: 'not in lowest terms' };
  return rootKey(root);
}

function termKey(tree: Tree): ReturnType<typeof rootKey> {
  let one = unsigned(tree);
  if (one.is === 'group') one = plain(one.of);
  if (isCoefficient(one)) return { key: '1' };
  if (one.is === 'root') return rootKey(one);
  if (one.is === 'product') {
    const [first, second] = one.of;
    if (one.of.length !== 2 || !isCoefficient(first!)) return { why: 'not a sum of roots' };
    return wholeIn(first!)?.text === '1' ? { why: 'a factor 1' } : rootKey(second!);
  }
  if (one.is === 'quotient' && one.how === 'fraction' && wholeIn(one.under))
    return quotientKey(one.over, one.under);
  const rootBelow = one.is === 'quotient' && everyTree(one).some(({ is }) => is === 'root');
  return { why: rootBelow ? 'a root in the denominator' : 'not a sum of roots' };
}

/** One denominator below a whole sum: it has no common divisor with all of its coefficients. */
function sumBelowOne(tree: Tree): Tree | FormFound {
  if (tree.is !== 'quotient' || !wholeIn(tree.under)) return tree;
  const over = plain(tree.over);
  if (over.is !== 'sum') return tree;
  if (valueOf(tree.under) === 1n) return no('the denominator is 1');
  const common = over.terms.reduce((made, term) => {
    const one = unsigned(term.of);
    const factor = one.is === 'product' ? wholeIn(one.of[0]!) : wholeIn(one);
    return divisor(made, factor ? BigInt(factor.text) : 1n);
  }, valueOf(tree.under));
  if (common !== 1n) return no('not in lowest terms');
  return over.terms.some((term) => plain(term.of).is === 'quotient') ? no('not a sum of roots') : over;
}

/** A sum of multiples of roots of square-free whole numbers, each root once, nothing under a line but whole numbers. */
export function surd(tree: Tree): FormFound {
  const signless = plain(tree);
  const inside = sumBelowOne(signless.is === 'negative' ? plain(signless.of) : signless);
  if ('why' in inside) return inside;
  const terms =
    inside.is === 'sum' ? inside.terms.map((term) => term.of) : [inside.is === 'either' ? inside.of : inside];
  const seen = new Set<string>();
  for (const term of terms) {
    const found = termKey(term);
    if ('why' in found) return no(found.why);
    if (seen.has(found.key)) return no('like terms');
    seen.add(found.key);
  }
  return yes;
}
