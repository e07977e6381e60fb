import type { Tool } from '../../../core/kinds/expression/response';

/** A button of the toolbar: what it shows, what it is called, and what it puts in; `#@` takes what stands before. */
export interface Button {
  readonly shows: string;
  readonly name: string;
  readonly puts: string;
}

const button = (shows: string, name: string, puts: string): Button => ({ shows, name, puts });

/** By purpose; the names are heard by people who listen. */
export const BUTTONS: { readonly [T in Tool]: readonly Button[] } = {
  fractions: [
    button('a⁄b', 'fraction', '\\frac{#@}{#?}'),
    button('1 a⁄b', 'mixedNumber', '#?\\frac{#?}{#?}'),
  ],
  powers: [
    button('xⁿ', 'power', '#@^{#?}'),
    button('x²', 'square', '#@^2'),
    button('√', 'squareRoot', '\\sqrt{#0}'),
    button('ⁿ√', 'nthRoot', '\\sqrt[#?]{#0}'),
    button('xₙ', 'index', '#@_{#?}'),
  ],
  constants: [
    button('π', 'pi', '\\pi'),
    button('e', 'euler', '\\exponentialE'),
    button('∞', 'infinity', '\\infty'),
    button('±', 'plusMinus', '\\pm'),
  ],
  brackets: [
    button('( )', 'round', '\\left(#0\\right)'),
    button('[ ]', 'square brackets', '\\left[#0\\right]'),
    button('{ }', 'curly', '\\left\\{#0\\right\\}'),
    button('|x|', 'absolute', '\\left|#0\\right|'),
  ],
  relations: [
    button('=', 'equal', '='),
    button('≠', 'notEqual', '\\ne'),
    button('<', 'less', '<'),
    button('>', 'more', '>'),
    button('≤', 'atMost', '\\le'),
    button('≥', 'atLeast', '\\ge'),
    button('≈', 'about', '\\approx'),
    button('≉', 'notAbout', '\\not\\approx'),
    button('≅', 'congruent', '\\cong'),
    button('≇', 'notCongruent', '\\ncong'),
    button('∼', 'similar', '\\sim'),
    button('≁', 'notSimilar', '\\nsim'),
  ],
  functions: [
    button('sin', 'sine', '\\sin\\left(#0\\right)'),
    button('cos', 'cosine', '\\cos\\left(#0\\right)'),
    button('tan', 'tangent', '\\tan\\left(#0\\right)'),
    button('ln', 'naturalLogarithm', '\\ln\\left(#0\\right)'),
    button('log', 'logarithm', '\\log\\left(#0\\right)'),
    button('logₙ', 'logarithmToBase', '\\log_{#?}\\left(#0\\right)'),
  ],
  geometry: [
    button('A͞B', 'segment', '\\overline{#0}'),
    button('A⃗B', 'ray', '\\overrightarrow{#0}'),
    button('↔AB', 'line', '\\overleftrightarrow{#0}'),
    button('∠', 'angle', '\\angle'),
    button('m∠', 'measure', 'm\\angle'),
    button('∥', 'parallel', '\\parallel'),
    button('∦', 'notParallel', '\\nparallel'),
    button('⊥', 'perpendicular', '\\perp'),
    button('△', 'triangle', '\\triangle'),
    button('▱', 'parallelogram', '\\parallelogram'),
    button('⊙', 'circle', '\\odot'),
  ],
  units: [
    button('°', 'degree', '\\degree'),
    button('%', 'percent', '\\%'),
    button('£', 'pound', '\\pounds'),
    button('€', 'euro', '\\euro'),
    button('$', 'dollar', '\\$'),
  ],
};

/** Groups that stand in the toolbar at once; the others unfold. */
export const AT_ONCE: readonly Tool[] = ['fractions', 'powers', 'constants', 'brackets'];
