import { expanded } from './forms/expanded';
import { factorised } from './forms/factorised';
import { decimal, mixedNumber, simplestFraction, standardForm, surd, type FormFound } from './forms/numbers';
import type { ReadOptions } from './Cursor';
import { readExpression } from './readExpression';
import type { Tree } from './tree';

/** Demands on how an answer is written; the value itself is judged elsewhere. */
export const FORMS = [
  'simplest-fraction',
  'mixed-number',
  'decimal',
  'standard-form',
  'surd',
  'expanded',
  'factorised',
] as const;
export type Form = (typeof FORMS)[number];

const PREDICATES: { readonly [F in Form]: (tree: Tree) => FormFound } = {
  'simplest-fraction': simplestFraction,
  'mixed-number': mixedNumber,
  decimal,
  'standard-form': standardForm,
  surd,
  expanded,
  factorised,
};

/**
 * Is an expression in a form? `null` where that cannot be told (a polynomial of a high degree): people decide. `why`
 * names what keeps it from the form, for people who look into it.
 */
export function isInForm(form: Form, latex: string, options: Partial<ReadOptions> = {}): FormFound {
  const read = readExpression(latex, options);
  return 'tree' in read ? PREDICATES[form](read.tree) : { is: false, why: read.refused.code };
}
