import { different, equal, undecided, type Judgement } from './judgement';
import { everyTree, type FigureTree, type RelationTree, type Tree } from './tree';

const turns = (points: readonly string[]) =>
  points.map((_, i) => [...points.slice(i), ...points.slice(0, i)]);
const firstOf = (...ways: (readonly string[])[]) => ways.map((way) => way.join(' ')).sort()[0]!;

/** The same text for the same figure: AB is BA for a segment and a line, not for a ray. */
export function keyOfFigure({ figure, points }: FigureTree): string {
  const reversed = [...points].reverse();
  switch (figure) {
    case 'segment':
    case 'line':
    case 'arc':
    case 'angle':
    case 'measure':
      return `${figure}:${firstOf(points, reversed)}`;
    case 'triangle':
      return `triangle:${[...points].sort().join(' ')}`;
    case 'quadrilateral':
    case 'parallelogram':
      return `${figure}:${firstOf(...turns(points), ...turns(reversed))}`;
    default:
      return `${figure}:${points.join(' ')}`;
  }
}

const BETWEEN_FIGURES = [
  'cong',
  '!cong',
  'sim',
  '!sim',
  'par',
  '!par',
  'perp',
  '!perp',
  '~~',
  '!~~',
  '===',
  'prop',
];
/** Figures that stand for a measure where figures are compared: lengths and angles. */
const MEASURED = ['measure', 'segment', 'angle', 'arc'];

export const hasFigure = (tree: Tree): boolean => everyTree(tree).some((one) => one.is === 'figure');

/** Is it a relation between figures, and not between figures that are measured? */
export const isBetweenFigures = (tree: Tree): tree is RelationTree =>
  tree.is === 'relation' &&
  (tree.signs.some((sign) => BETWEEN_FIGURES.includes(sign)) ||
    tree.sides.some((side) => side.is === 'figure' && !MEASURED.includes(side.figure)));

/** A measure is a quantity with a name: m∠A = 45° says something of it. */
export function withMeasures(tree: Tree): Tree {
  if (tree.is === 'figure' && MEASURED.includes(tree.figure))
    return { is: 'letter', name: `#${keyOfFigure(tree)}` };
  return JSON.parse(
    JSON.stringify(tree, (_, value: unknown) => {
      const one = value as Tree | null;
      const measured = typeof one === 'object' && one?.is === 'figure' && MEASURED.includes(one.figure);
      return measured ? { is: 'letter', name: `#${keyOfFigure(one)}` } : value;
    }),
  ) as Tree;
}

/** Which corner belongs to which, from the first figure to the second. */
function pairsOf([first, second]: readonly FigureTree[], turned: boolean): string {
  const [from, to] = turned ? [second!, first!] : [first!, second!];
  return from.points
    .map((point, i) => `${point}~${to.points[i]}`)
    .sort()
    .join();
}

const isShape = (tree: Tree): tree is FigureTree =>
  tree.is === 'figure' && ['triangle', 'quadrilateral'].includes(tree.figure);

/** Relations between figures: the same sides, in either order; of shapes the same pairs of corners. */
export function compareFigureRelations(
  a: RelationTree,
  b: RelationTree,
  compare: (a: Tree, b: Tree) => Judgement,
): Judgement {
  if (a.signs.length !== b.signs.length) return different('chain');
  const [sign] = a.signs;
  if (a.signs.length !== 1) return undecided('chain');
  if (sign !== b.signs[0]) return different('sign');
  if (sign === 'prop') return undecided('proportion');
  const [mine, theirs] = [a.sides.filter(isShape), b.sides.filter(isShape)];
  if (['cong', '!cong', 'sim', '!sim'].includes(sign!) && mine.length === 2 && theirs.length === 2) {
    const wanted = [pairsOf(mine, false), pairsOf(mine, true)];
    return wanted.includes(pairsOf(theirs, false)) ? equal('corners') : different('corners');
  }
  const [left, right] = a.sides as [Tree, Tree];
  const [first, second] = b.sides as [Tree, Tree];
  const sides = (x: Tree, y: Tree) => [compare(left, x).is, compare(right, y).is];
  const ways = [sides(first, second), sides(second, first)];
  if (ways.some((way) => way.every((is) => is === 'equal'))) return equal('sides');
  return ways.every((way) => way.includes('different')) ? different('sides') : undecided('sides');
}
