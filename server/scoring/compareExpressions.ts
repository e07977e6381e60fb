import { isInForm } from '../../core/expressions/forms';
import { judge } from '../../core/expressions/judge';
import type { ExpressionFound, ExpressionRun } from '../../core/kinds/evidence';

/** How long a comparison is worked at before it is left to people; the worker itself is ended a little later. */
const INNER_MS = 1500;

/** Compares two expressions, and looks at the form of the one that was given. */
export function compareExpressions({ key, given, form, options }: ExpressionRun): ExpressionFound {
  const end = performance.now() + INNER_MS;
  const judged = judge(key, given, { ...options, isLate: () => performance.now() > end });
  const inForm = form && judged.is === 'equal' ? isInForm(form, given, options) : null;
  const why = judged.is === 'unreadable' ? `${judged.whose}: ${judged.refused.code}` : judged.why;
  return { sort: 'expression', is: judged.is, why: inForm?.why || why, inForm: inForm?.is ?? null };
}
