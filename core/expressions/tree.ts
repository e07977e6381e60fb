/**
 * What was typed, as a tree: how it is written, not what it is worth. Forms are judged by it, and values are taken from
 * it (`toTerm.ts`).
 */
export type Tree =
  | NumberTree
  | {
      readonly is: 'mixed';
      readonly whole: NumberTree;
      readonly over: NumberTree;
      readonly under: NumberTree;
    }
  | { readonly is: 'letter'; readonly name: string }
  | { readonly is: 'constant'; readonly name: ConstantName }
  | { readonly is: 'infinity' }
  | { readonly is: 'plus' | 'negative' | 'percent' | 'degrees' | 'factorial'; readonly of: Tree }
  /** Brackets; `invisible` for a group of the notation that no one sees. */
  | { readonly is: 'group'; readonly of: Tree; readonly invisible: boolean }
  | { readonly is: 'absolute'; readonly of: Tree; readonly bare: boolean }
  | { readonly is: 'either'; readonly sign: EitherSign; readonly of: Tree }
  | { readonly is: 'sum'; readonly terms: readonly SignedTree[] }
  | { readonly is: 'product'; readonly how: 'dot' | 'cross' | 'implicit'; readonly of: readonly Tree[] }
  | { readonly is: 'quotient'; readonly over: Tree; readonly under: Tree; readonly how: QuotientHow }
  | { readonly is: 'binomial'; readonly over: Tree; readonly under: Tree }
  | { readonly is: 'power'; readonly base: Tree; readonly exponent: Tree }
  | { readonly is: 'root'; readonly of: Tree; readonly index: Tree | null }
  /** `bare`: its argument stands without brackets. */
  | FunctionTree
  | { readonly is: 'call'; readonly name: string; readonly of: Tree }
  | { readonly is: 'currency'; readonly sign: string; readonly of: Tree }
  | RelationTree
  | ListTree
  | { readonly is: 'set' | 'tuple'; readonly of: readonly Tree[] }
  | IntervalTree
  /** A relation or a list in brackets. */
  | { readonly is: 'statement'; readonly of: Tree }
  | FigureTree;

export interface NumberTree {
  readonly is: 'number';
  /** Digits with a point. */
  readonly text: string;
  readonly whole: boolean;
  /** The digits that repeat for ever, after those of `text`. */
  readonly repeating: string | null;
}

export type ConstantName = 'pi' | 'e';
export type EitherSign = '±' | '∓';
export type QuotientHow = 'fraction' | 'divide' | 'slash';

export interface SignedTree {
  readonly sign: '+' | '-' | EitherSign;
  readonly of: Tree;
}

export interface FunctionTree {
  readonly is: 'function';
  readonly name: string;
  readonly of: Tree;
  readonly base: Tree | null;
  readonly bare: boolean;
}

export interface RelationTree {
  readonly is: 'relation';
  /** Between the sides, one fewer than there are of them. */
  readonly signs: readonly string[];
  readonly sides: readonly Tree[];
}

export interface ListTree {
  readonly is: 'list';
  readonly how: 'or' | 'and' | 'comma';
  readonly of: readonly Tree[];
}

export interface IntervalTree {
  readonly is: 'interval';
  readonly from: Tree;
  readonly to: Tree;
  readonly fromOpen: boolean;
  readonly toOpen: boolean;
}

export type FigureName =
  | 'segment'
  | 'ray'
  | 'line'
  | 'arc'
  | 'angle'
  | 'measure'
  | 'triangle'
  | 'quadrilateral'
  | 'parallelogram'
  | 'circle';

export interface FigureTree {
  readonly is: 'figure';
  readonly figure: FigureName;
  readonly points: readonly string[];
}

/** The trees right below one. */
export function below(tree: Tree): readonly Tree[] {
  switch (tree.is) {
    case 'number':
    case 'letter':
    case 'constant':
    case 'infinity':
    case 'figure':
      return [];
    case 'mixed':
      return [tree.whole, tree.over, tree.under];
    case 'sum':
      return tree.terms.map((term) => term.of);
    case 'product':
    case 'list':
    case 'set':
    case 'tuple':
      return tree.of;
    case 'relation':
      return tree.sides;
    case 'quotient':
    case 'binomial':
      return [tree.over, tree.under];
    case 'power':
      return [tree.base, tree.exponent];
    case 'root':
      return tree.index ? [tree.of, tree.index] : [tree.of];
    case 'function':
      return tree.base ? [tree.of, tree.base] : [tree.of];
    case 'interval':
      return [tree.from, tree.to];
    default:
      return [tree.of];
  }
}

export const everyTree = (tree: Tree): Tree[] => [tree, ...below(tree).flatMap(everyTree)];

export const isWhole = (tree: Tree): tree is NumberTree => tree.is === 'number' && tree.whole;
