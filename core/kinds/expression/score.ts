import { message } from '../../messages/message';
import type { Content, Found, ScoringInput } from '../contract';
import type { EvidenceFound, EvidenceRequest, ExpressionFound } from '../evidence';
import { creditOf, share, undecided, wholeComponent } from '../shared/credits';
import type { ExpressionAsked, ExpressionKey } from './content';
import type { ExpressionResponse } from './response';

export type ExpressionContent = Content<ExpressionAsked, ExpressionKey>;

const nameOf = (index: number) => `accepted-${index}`;

/** A key, which is written with a point, with its decimal signs as the round writes them. */
export const withSign = (latex: string, decimal: '.' | ','): string =>
  decimal === ',' ? latex.replace(/(\d)\.(\d)/g, '$1{,}$2') : latex;

/** One comparison for each accepted expression; `decimal` is the sign of the round. */
export const comparisons = (
  { asked, key }: ExpressionContent,
  { latex }: ExpressionResponse,
  decimal: '.' | ',',
): EvidenceRequest[] =>
  key.accepted.map((one, i) => ({
    key: nameOf(i),
    sort: 'expression',
    run: {
      key: withSign(one.latex, decimal),
      given: latex,
      form: asked.form,
      options: {
        decimal,
        list: asked.list,
        letters: asked.letters,
        functions: asked.functions,
        domain: key.domain,
        log: key.log,
      },
    },
  }));

function foundFor(evidence: Readonly<Record<string, EvidenceFound>>, index: number): ExpressionFound {
  const found = evidence[nameOf(index)];
  if (found?.sort !== 'expression') throw new Error('an expression is scored from its comparisons');
  return found;
}

/**
 * Of the accepted expressions that it equals, the one with the most marks counts. What cannot be read or compared for
 * certain is never wrong: people decide.
 */
export function scoreExpression({
  content: { asked, key },
  evidence,
  place,
}: ScoringInput<ExpressionAsked, ExpressionKey, ExpressionResponse, null>): Found[] {
  const [component] = wholeComponent(place.marks);
  const found = key.accepted.map((accepted, i) => ({ accepted, found: foundFor(evidence, i) }));
  const equal = found
    .filter((one) => one.found.is === 'equal')
    .sort((a, b) => b.accepted.percent - a.accepted.percent)[0];
  const unsure = found.filter((one) => one.found.is === 'undecided' || one.found.is === 'unreadable');
  const best = equal?.accepted.percent ?? 0;
  if (unsure.some((one) => one.accepted.percent > best))
    return [undecided(component, unsure.map((one) => `${one.accepted.latex}: ${one.found.why}`).join('; '))];
  if (!equal) return [creditOf(component, share(0, 1), [message('expression.other')])];
  const { percent, note } = equal.accepted;
  const reasons = note ? [message('author.text', { text: note })] : [];
  const { inForm, why } = equal.found;
  if (asked.form === null || inForm === true) return [creditOf(component, share(percent, 100), reasons)];
  if (inForm === null) return [undecided(component, `form: ${why}`)];
  const other = message('expression.otherForm');
  return [creditOf(component, share(percent * key.otherForm, 10_000), [...reasons, other])];
}
