import { shareOfMarks } from '../../marks';
import type { Score, ScoringInput } from '../contract';
import { plural, scoreShare, unanswered } from '../shared/scores';
import type { ChoiceContent, ChoiceResponse } from './content';

function scoreOne(content: ChoiceContent, chosen: string, maximum: number): Score {
  if (content.right.includes(chosen))
    return { hundredths: maximum, verdict: 'right', reasons: ['The right one.'] };
  const lost = content.penalty > 0 ? shareOfMarks(maximum, Math.round(content.penalty * 10_000), 10_000) : 0;
  const reason = lost > 0 ? 'Not the right one; a wrong choice costs marks here.' : 'Not the right one.';
  return { hundredths: lost > 0 ? -lost : 0, verdict: 'wrong', reasons: [reason] };
}

/** Rules for one and for several right options: `2-domain.md`, “Scoring rules”. */
export function scoreChoice({
  content,
  response,
  maximum,
}: ScoringInput<ChoiceContent, ChoiceResponse>): Score {
  const chosen = new Set(response.chosen);
  if (chosen.size === 0) return unanswered;
  if (content.mode === 'one') return scoreOne(content, response.chosen[0]!, maximum);
  const hits = content.right.filter((key) => chosen.has(key)).length;
  const misses = chosen.size - hits;
  const [right, wrong] = [content.right.length, content.options.length - content.right.length];
  const reason = `${plural(hits, 'choice is', 'choices are')} right${misses ? `, ${misses} not` : ''}.`;
  if (content.rule === 'all-or-nothing')
    return scoreShare(maximum, hits === right && misses === 0 ? 1 : 0, 1, [reason]);
  if (content.rule === 'each') {
    // hits/R − misses/W over the common denominator R·W
    const denominator = right * Math.max(wrong, 1);
    return scoreShare(maximum, hits * Math.max(wrong, 1) - misses * right, denominator, [reason]);
  }
  return scoreShare(maximum, hits + (wrong - misses), content.options.length, [reason]);
}
