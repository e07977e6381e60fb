import {
  decimal,
  parseDecimal,
  roundTo,
  roundToFigures,
  sameFigure,
  significantFigures,
  within,
  withinShare,
  type Decimal,
} from '../../numbers/decimal';
import { shareOfMarks } from '../../marks';
import type { Score, ScoringInput } from '../contract';
import { unanswered } from '../shared/scores';
import type { NumberContent, NumberResponse, Tolerance } from './content';

function isRight(given: Decimal, key: Decimal, tolerance: Tolerance): boolean {
  switch (tolerance.by) {
    case 'distance':
      return within(given, key, decimal(tolerance.within));
    case 'share':
      return withinShare(given, key, decimal(tolerance.within));
    case 'places':
      return given.places === tolerance.places && sameFigure(given, roundTo(key, tolerance.places));
    case 'figures':
      return (
        significantFigures(given) === tolerance.figures &&
        sameFigure(given, roundToFigures(key, tolerance.figures))
      );
  }
}

/** Figures are compared as exact decimals, never as strings or binary fractions. */
export function scoreNumber({
  content,
  response,
  maximum,
}: ScoringInput<NumberContent, NumberResponse>): Score {
  const given = parseDecimal(response.typed);
  if (given === 'empty') return unanswered;
  if (typeof given === 'string')
    return { hundredths: 0, verdict: 'wrong', reasons: ['This is not a figure.'] };
  const hit = content.accepted.find((a) => isRight(given, decimal(a.figure), content.tolerance));
  if (!hit) return { hundredths: 0, verdict: 'wrong', reasons: ['The figure does not match.'] };
  const hundredths = shareOfMarks(maximum, Math.round(hit.percent * 100), 10_000);
  return {
    hundredths,
    verdict: hit.percent >= 100 ? 'right' : 'partly',
    reasons: hit.note ? [hit.note] : [],
  };
}
