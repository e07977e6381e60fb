import { lettersOf } from '../term';
import { toTerm } from '../toTerm';
import type { Tree } from '../tree';
import { no, yes, type FormFound } from './numbers';
import { plain, unsigned, valueOf, wholeIn } from './shared';

const hasLetters = (tree: Tree): boolean => {
  try {
    return lettersOf(toTerm(tree, () => 1, { log: 10 })).size > 0;
  } catch {
    return true;
  }
};

/** The letters of a monomial with their powers, as a text; or what keeps it from being one. */
function monomial(tree: Tree): { readonly key: string } | { readonly why: string } {
  const powers = new Map<string, bigint>();
  let figures = 0;
  let fault = '';
  const note = (name: string, power: bigint) => {
    if (powers.has(name)) fault = 'letters not multiplied out';
    powers.set(name, (powers.get(name) ?? 0n) + power);
  };
  const walk = (factor: Tree): void => {
    const one = plain(factor);
    if (one.is === 'number' || one.is === 'mixed') {
      if (++figures > 1) fault = 'figures not multiplied out';
    } else if (one.is === 'constant') note(`#${one.name}`, 1n);
    else if (one.is === 'letter') note(one.name, 1n);
    else if (one.is === 'power' && plain(one.base).is === 'letter' && wholeIn(one.exponent))
      note((plain(one.base) as Tree & { name: string }).name, valueOf(one.exponent));
    else if (one.is === 'root' && !hasLetters(one.of)) note(`√${JSON.stringify(one.of)}`, 1n);
    else if (one.is === 'product') one.of.forEach(walk);
    else if (one.is === 'quotient' && plain(one.under).is === 'number') walk(one.over);
    else fault = one.is === 'group' || one.is === 'power' ? 'brackets left' : 'not a monomial';
  };
  walk(tree);
  if (fault) return { why: fault };
  return {
    key: [...powers]
      .map(([name, power]) => `${name}^${power}`)
      .sort()
      .join(' '),
  };
}

/** A sum of monomials in which like terms are gathered. */
export function expanded(tree: Tree): FormFound {
  const one = plain(tree);
  const terms = one.is === 'sum' ? one.terms.map((term) => term.of) : [unsigned(one)];
  const seen = new Set<string>();
  for (const term of terms) {
    const found = monomial(term);
    if ('why' in found) return no(found.why);
    if (seen.has(found.key)) return no('like terms');
    seen.add(found.key);
  }
  return yes;
}
