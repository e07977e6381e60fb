import { shareOfMarks } from '../../marks';
import {
  exactOf,
  roundExact,
  roundToSignificant,
  sameExact,
  withinDistance,
  withinShareOf,
} from '../../numbers/exact';
import type { NumberRead } from '../../numbers/readNumber';
import { noPlace, type Score, type ScoringInput } from '../contract';
import { unanswered } from '../shared/scores';
import type { NumberContent, NumberResponse, Tolerance } from './content';
import { readTyped } from './reading';

function isRight({ value, places, figures }: NumberRead, figure: string, tolerance: Tolerance): boolean {
  const key = exactOf(figure);
  switch (tolerance.by) {
    case 'distance':
      return withinDistance(value, key, exactOf(tolerance.within));
    case 'share':
      return withinShareOf(value, key, exactOf(tolerance.within));
    case 'places':
      return places === tolerance.places && sameExact(value, roundExact(key, tolerance.places));
    case 'figures':
      // Noughts at the end of a whole number may only hold the place: 1200 is 1234 to two figures.
      return (
        figures !== null &&
        figures.least <= tolerance.figures &&
        tolerance.figures <= figures.most &&
        sameExact(value, roundToSignificant(key, tolerance.figures))
      );
  }
}

/** Figures are compared exactly; of several accepted ones that match, the one with the most marks counts. */
export function scoreNumber({
  content,
  response,
  maximum,
  place = noPlace,
}: ScoringInput<NumberContent, NumberResponse>): Score {
  const reading = readTyped({ ...content, locale: place.locale }, response.typed);
  if ('problem' in reading)
    return reading.problem === 'empty'
      ? unanswered
      : { hundredths: 0, verdict: 'wrong', reasons: ['This is not a figure.'] };
  const hits = content.accepted.filter((a) => isRight(reading.read, a.figure, content.tolerance));
  if (hits.length === 0) return { hundredths: 0, verdict: 'wrong', reasons: ['The figure does not match.'] };
  const best = hits.reduce((a, b) => (b.percent > a.percent ? b : a));
  return {
    hundredths: shareOfMarks(maximum, Math.round(best.percent * 100), 10_000),
    verdict: best.percent >= 100 ? 'right' : 'partly',
    reasons: best.note ? [best.note] : [],
  };
}
