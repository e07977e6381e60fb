import { Undefined, Unknown } from './ball';
import {
  compareFigureRelations,
  hasFigure,
  isBetweenFigures,
  keyOfFigure,
  withMeasures,
} from './compareFigures';
import { compareRelations } from './compareRelations';
import { compareValues } from './compareValues';
import type { ReadOptions } from './Cursor';
import { allEqual, different, equal, OutOfTime, undecided, type Judgement, type Judging } from './judgement';
import { readExpression } from './readExpression';
import type { Refused } from './refusal';
import { eitherSigns, NotComparable, valuesOf } from './toTerm';
import type { Tree } from './tree';

type Sort = 'value' | 'relation' | 'list' | 'set' | 'tuple' | 'interval' | 'figure' | 'infinity' | 'currency';

function sortOf(tree: Tree): Sort {
  switch (tree.is) {
    case 'relation':
    case 'statement':
      return 'relation';
    case 'list':
      return tree.of.some((one) => sortOf(one) === 'relation') ? 'relation' : 'list';
    case 'set':
    case 'tuple':
    case 'interval':
    case 'figure':
    case 'infinity':
    case 'currency':
      return tree.is;
    default:
      return 'value';
  }
}

/** Without brackets around it, and without a plus before it. */
function bare(tree: Tree): Tree {
  let one = tree;
  while (one.is === 'group' || one.is === 'plus') one = one.of;
  return one;
}

function infinityOf(tree: Tree): -1 | 0 | 1 {
  if (tree.is === 'infinity') return 1;
  if ((tree.is !== 'negative' && tree.is !== 'plus') || tree.of.is !== 'infinity') return 0;
  return tree.is === 'negative' ? -1 : 1;
}

/** Compares trees of all sorts. */
class Comparer {
  private readonly judging: Judging;
  constructor(judging: Judging) {
    this.judging = judging;
  }

  compare = (one: Tree, other: Tree): Judgement => {
    const [a, b] = [bare(one), bare(other)];
    const [sort, otherSort] = [sortOf(a), sortOf(b)];
    if (sort !== otherSort) return different(`${sort} against ${otherSort}`);
    if (sort === 'relation') return this.relations(a, b);
    if (a.is === 'figure' && b.is === 'figure')
      return keyOfFigure(a) === keyOfFigure(b) ? equal('figure') : different('figure');
    if (a.is === 'infinity') return equal('sign');
    if (a.is === 'currency' && b.is === 'currency')
      return a.sign === b.sign ? this.compare(a.of, b.of) : different('currency');
    if (a.is === 'interval' && b.is === 'interval') {
      if (a.fromOpen !== b.fromOpen || a.toOpen !== b.toOpen) return different('ends');
      return allEqual([this.ends(a.from, b.from), this.ends(a.to, b.to)]);
    }
    if (a.is === 'tuple' && b.is === 'tuple')
      return a.of.length === b.of.length
        ? allEqual(a.of.map((entry, i) => this.compare(entry, b.of[i]!)))
        : different('length');
    if (a.is === 'list' && b.is === 'list')
      return a.how === b.how ? this.entries(a.of, b.of) : undecided('list');
    if (a.is === 'set' && b.is === 'set') return this.entries(a.of, b.of);
    return this.values(a, b);
  };

  private ends(a: Tree, b: Tree): Judgement {
    const [x, y] = [infinityOf(a), infinityOf(b)];
    if (x === 0 && y === 0) return this.compare(a, b);
    return x === y ? equal('infinity') : different('infinity');
  }

  /** Entries in any order, each of either among those of the other. */
  private entries(a: readonly Tree[], b: readonly Tree[]): Judgement {
    const among = (one: Tree, others: readonly Tree[]) => {
      const found = others.map((other) => this.compare(one, other).is);
      if (found.includes('equal')) return 'equal';
      return found.includes('undecided') ? 'undecided' : 'different';
    };
    const found = [...a.map((one) => among(one, b)), ...b.map((one) => among(one, a))];
    if (found.includes('different')) return different('entry');
    return found.includes('undecided') ? undecided('entry') : equal('entries');
  }

  private relations(one: Tree, other: Tree): Judgement {
    const inside = (tree: Tree): Tree => (tree.is === 'statement' ? inside(tree.of) : tree);
    const [a, b] = [inside(one), inside(other)];
    if (isBetweenFigures(a) || isBetweenFigures(b))
      return a.is === 'relation' && b.is === 'relation'
        ? compareFigureRelations(a, b, (x, y) =>
            x.is === 'figure' || y.is === 'figure' ? this.figures(x, y) : this.compare(x, y),
          )
        : undecided('figures');
    const measured = hasFigure(a) || hasFigure(b);
    return compareRelations(measured ? withMeasures(a) : a, measured ? withMeasures(b) : b, this.judging);
  }

  private figures(a: Tree, b: Tree): Judgement {
    const same = a.is === 'figure' && b.is === 'figure' && keyOfFigure(a) === keyOfFigure(b);
    return same ? equal('figure') : different('figure');
  }

  private values(one: Tree, other: Tree): Judgement {
    const measured = hasFigure(one) || hasFigure(other);
    const [a, b] = measured ? [withMeasures(one), withMeasures(other)] : [one, other];
    const compareLinked = (linked: boolean) =>
      compareValues(valuesOf(a, linked, this.judging), valuesOf(b, linked, this.judging), this.judging);
    const found = compareLinked(false);
    // Several ± can be meant for themselves or together: both readings have to agree.
    if (Math.max(eitherSigns(a).length, eitherSigns(b).length) < 2) return found;
    return compareLinked(true).is === found.is ? found : undecided('several ±');
  }
}

export interface JudgeOptions extends Partial<Omit<Judging, 'checkTime'>>, Partial<ReadOptions> {
  /** Is the time for this comparison over? Asked again and again while it is worked at. */
  readonly isLate?: () => boolean;
}

export type Judged =
  | Judgement
  /** One of the two cannot be read. */
  | { readonly is: 'unreadable'; readonly whose: 'key' | 'given'; readonly refused: Refused };

const LISTS = ['list', 'set', 'tuple', 'interval'];

/**
 * Does what was given mean the same as the key? `equal` and `different` are certain to within the limits told in
 * docs/expressions.md; anything else is left to people. Never throws.
 */
export function judge(key: string, given: string, options: JudgeOptions = {}): Judged {
  const right = readExpression(key, options);
  if ('refused' in right) return { is: 'unreadable', whose: 'key', refused: right.refused };
  // Where the key is a list, a comma parts entries and groups no digits.
  const list = options.list ?? LISTS.includes(right.tree.is);
  const read = readExpression(given, { ...options, list });
  if ('refused' in read) return { is: 'unreadable', whose: 'given', refused: read.refused };
  const { domain = {}, seed = 'expressions', log = 10, isLate } = options;
  const checkTime = () => {
    if (isLate?.()) throw new OutOfTime();
  };
  try {
    return new Comparer({ domain, seed, log, checkTime }).compare(right.tree, read.tree);
  } catch (error) {
    if (error instanceof OutOfTime) return undecided('time');
    if (error instanceof NotComparable || error instanceof Unknown || error instanceof Undefined)
      return undecided(error.message || 'no value');
    // A fault of ours, or something too large for this machine: never a wrong answer.
    return undecided(`fault: ${error instanceof Error ? error.message : String(error)}`);
  }
}
