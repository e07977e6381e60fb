import { Undefined, Unknown, precisionOf, valueAt, isBall, type Ball } from './ball';
import { compareBalls } from './compareValues';
import { different, equal, randomFor, undecided, type Judgement, type Judging } from './judgement';
import { isRational, isSameRational } from './modular';
import { drawFrom, rangeOf, samplePoints } from './sampling';
import { compareSolutions, type Atom, type Formula } from './solutions';
import { exactValue, lettersOf, minus, sumOf, termsBelow, whole, type Term } from './term';
import { eitherSigns, NotComparable, toTerms, type Signs } from './toTerm';
import type { ListTree, RelationTree, Tree } from './tree';

/** Relations brought to one side; those that point to the right are turned round. */
const ATOMS: Readonly<Record<string, { readonly is: Atom['is']; readonly turned: boolean }>> = {
  '=': { is: '=', turned: false },
  '!=': { is: '!=', turned: false },
  '<': { is: '<', turned: false },
  '<=': { is: '<=', turned: false },
  '>': { is: '<', turned: true },
  '>=': { is: '<=', turned: true },
};

function atomsOf({ signs, sides }: RelationTree, either: Signs, judging: Judging): Atom[] {
  const terms = toTerms(sides, either, judging);
  return signs.map((sign, i) => {
    const { is, turned } = ATOMS[sign]!;
    const [left, right] = turned ? [terms[i + 1]!, terms[i]!] : [terms[i]!, terms[i + 1]!];
    return { is, of: sumOf(left, minus(right)) };
  });
}

/** x = 1, x = 2 are alternatives; x = 1, y = 2 hold together. Any other list between commas has two readings. */
function howOf({ of }: ListTree): 'or' | 'and' {
  const names = of.map((one) =>
    one.is === 'relation' && one.signs.length === 1 && one.signs[0] === '=' && one.sides[0]!.is === 'letter'
      ? one.sides[0].name
      : null,
  );
  const distinct = new Set(names);
  if (names.includes(null)) throw new NotComparable('list of relations');
  if (distinct.size === 1) return 'or';
  if (distinct.size === names.length) return 'and';
  throw new NotComparable('list of relations');
}

function formulaOf(tree: Tree, judging: Judging): Formula {
  if (tree.is === 'statement') return formulaOf(tree.of, judging);
  if (tree.is === 'list') {
    const formulas = tree.of.map((one) => formulaOf(one, judging));
    const how = tree.how === 'comma' ? howOf(tree) : tree.how;
    if (how === 'or') return formulas.flat();
    return formulas.reduce((made, next) => made.flatMap((some) => next.map((more) => [...some, ...more])));
  }
  if (tree.is !== 'relation') throw new NotComparable('expression among relations');
  if (tree.signs.some((sign) => !Object.hasOwn(ATOMS, sign))) throw new NotComparable('relation');
  const signs = eitherSigns(tree);
  if (signs.length === 0) return [atomsOf(tree, () => 1, judging)];
  if (signs.length > 1 && !signs.includes('∓')) throw new NotComparable('several ± in a relation');
  return ([1, -1] as const).map((first) =>
    atomsOf(tree, (_, sign) => (sign === '∓' ? (first === 1 ? -1 : 1) : first), judging),
  );
}

const MOST_PLACES = 13;
const DIGITS = 40;

/** Is one side a constant times the other? The sign of the constant; 0 where it is not, null where it cannot be told. */
function ratioOf(a: Term, b: Term, letters: ReadonlySet<string>, judging: Judging): number | null {
  const random = randomFor(judging, 'ratio');
  const k = precisionOf(DIGITS);
  let first: Ball | null = null;
  let agreeing = 0;
  for (const place of samplePoints([a, b], letters, judging.domain, random).slice(0, MOST_PLACES)) {
    judging.checkTime();
    const [p, q] = [valueAt(a, place, DIGITS), valueAt(b, place, DIGITS)];
    if (p === 'unknown' || q === 'unknown' || (p === 'undefined' && q === 'undefined')) continue;
    if (!isBall(p) || !isBall(q)) return 0;
    const [noughtP, noughtQ] = [k.mayBeZero(p), k.mayBeZero(q)];
    if (noughtP && noughtQ) continue;
    if (noughtP !== noughtQ) return 0;
    let ratio: Ball;
    try {
      ratio = k.over(p, q);
    } catch (error) {
      if (error instanceof Undefined || error instanceof Unknown) continue;
      throw error;
    }
    const compared = first ? compareBalls(first, ratio) : 'same';
    if (compared === 'other') return 0;
    if (compared === 'same') agreeing++;
    first ??= ratio;
  }
  return first && agreeing >= (letters.size > 0 ? 5 : 1) ? Math.sign(first.value.toNumber()) : null;
}

/** May a term have holes: a divisor with letters, a logarithm, a function? */
function mayHaveHoles(term: Term): boolean {
  const letters = (one: Term) => lettersOf(one).size > 0;
  if (term.is === 'quotient' && letters(term.under)) return true;
  if (term.is === 'power') {
    const exponent = exactValue(term.exponent);
    if (letters(term.exponent) || exponent === null || exponent.over < 0n) return true;
  }
  if (term.is === 'log' || term.is === 'function') return true;
  return termsBelow(term).some(mayHaveHoles);
}

/** Two single relations: the same up to reversal and positive scaling; null where that does not settle it. */
function compareAtoms(x: Atom, y: Atom, letters: ReadonlySet<string>, judging: Judging): Judgement | null {
  if (x.is === y.is) {
    const ratio = ratioOf(x.of, y.of, letters, judging);
    const scaled = ratio !== null && ratio !== 0 && (ratio > 0 || x.is === '=' || x.is === '!=');
    if (scaled) {
      // Formulas of several letters are rearranged freely: E = mc² and m = E/c² are the same.
      const [only] = letters;
      if (letters.size === 1 && (mayHaveHoles(x.of) || mayHaveHoles(y.of))) {
        const found = compareSolutions([[x]], [[y]], along(only!, {}, judging));
        if (found.is === 'other') return different('a hole at a solution');
      }
      return equal('scaling');
    }
  }
  const isTrivial = ({ of }: Atom) =>
    exactValue(of) !== null ||
    (isRational(of) && isSameRational(of, whole(0), letters, randomFor(judging, 'trivial')) === true);
  return isTrivial(x) || isTrivial(y) ? undecided('always or never true') : null;
}

const along = (letter: string, others: Readonly<Record<string, number>>, judging: Judging) => ({
  letter,
  others,
  range: rangeOf(judging.domain, letter),
  random: randomFor(judging, `solutions ${letter}`),
  checkTime: judging.checkTime,
});

const SLICES = 4;

/** Relations by their solutions: along each letter, the others drawn. */
export function compareRelations(a: Tree, b: Tree, judging: Judging): Judgement {
  const [p, q] = [formulaOf(a, judging), formulaOf(b, judging)];
  const letters = new Set<string>();
  for (const { of } of [...p, ...q].flat()) lettersOf(of, letters);
  const [x, y] = [
    p.length === 1 && p[0]!.length === 1 && p[0]![0],
    q.length === 1 && q[0]!.length === 1 && q[0]![0],
  ];
  if (x && y) {
    const settled = compareAtoms(x, y, letters, judging);
    if (settled) return settled;
  }
  if (letters.size === 0) return undecided('no letters');
  const names = [...letters];
  const random = randomFor(judging, 'slices');
  let [some, none, doubtful] = [false, false, false];
  for (const name of names)
    for (let slice = 0; slice < (names.length === 1 ? 1 : SLICES); slice++) {
      const others = Object.fromEntries(
        names
          .filter((other) => other !== name)
          .map((other) => [other, Number(drawFrom(rangeOf(judging.domain, other), random).toFixed(4))]),
      );
      const found = compareSolutions(p, q, along(name, others, judging));
      if (found.is === 'other') return different('a solution');
      doubtful ||= found.is === 'doubtful';
      some ||= found.some;
      none ||= found.none;
    }
  if (doubtful) return undecided('a solution that cannot be told');
  if (!some || !none) return undecided(some ? 'always true' : 'no solution found');
  return equal('solutions');
}
