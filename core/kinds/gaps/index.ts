import { matchesText } from '../../text/compareText';
import { plainKind, type Kind, type Progress, type Score, type ScoringInput } from '../contract';
import { plural, scoreShare, unanswered } from '../shared/scores';
import {
  contentSchema,
  responseSchema,
  type Gap,
  type GapsContent,
  type GapShown,
  type GapsResponse,
  type GapsShown,
} from './content';
import { cutAtGaps, gapsInOrder } from './pieces';

const filledIn = (response: GapsResponse, key: string) => (response.filled[key] ?? '').trim();

function progress(shown: GapsShown, response: GapsResponse): Progress {
  const gaps = gapsInOrder(shown);
  const open = gaps.filter(({ gap }) => filledIn(response, gap.key) === '');
  const wordy = gaps.find(
    ({ gap }) => gap.by === 'typing' && gap.oneWord && /\s/.test(filledIn(response, gap.key)),
  );
  if (wordy) return { state: 'part', missing: `Gap ${wordy.position} takes one word only` };
  if (open.length === 0) return { state: 'done', missing: null };
  if (open.length === gaps.length)
    return { state: 'empty', missing: plural(open.length, 'gap is empty', 'gaps are empty') };
  const list = open.map(({ position }) => position).join(', ');
  return { state: 'part', missing: open.length === 1 ? `Gap ${list} is empty` : `Gaps ${list} are empty` };
}

function isRight(gap: Gap, given: string): boolean {
  if (gap.by === 'list') return given === gap.right;
  if (gap.oneWord && /\s/.test(given)) return false;
  return matchesText(given, gap.accepted, gap);
}

function score({ content, response, maximum }: ScoringInput<GapsContent, GapsResponse>): Score {
  if (content.gaps.every((gap) => filledIn(response, gap.key) === '')) return unanswered;
  const right = content.gaps.filter((gap) => isRight(gap, filledIn(response, gap.key))).length;
  return scoreShare(maximum, right, content.gaps.length, [
    `${plural(right, 'gap', 'gaps')} of ${content.gaps.length} right.`,
  ]);
}

function showGap(gap: Gap): GapShown {
  return gap.by === 'list'
    ? { key: gap.key, by: 'list', options: [...gap.options] }
    : { key: gap.key, by: 'typing', oneWord: gap.oneWord };
}

const show = (c: GapsContent): GapsShown => ({ text: c.text, gaps: c.gaps.map(showGap) });

const inText = (shown: GapsShown, fill: (key: string) => string) =>
  cutAtGaps(shown)
    .map((piece) => ('text' in piece ? piece.text : `[${fill(piece.gap.key) || ' '}]`))
    .join('');

function misfit(shown: GapsShown, response: GapsResponse): string | null {
  for (const [key, value] of Object.entries(response.filled)) {
    const gap = shown.gaps.find((g) => g.key === key);
    if (!gap) return 'no such gap';
    if (gap.by === 'list' && value !== '' && !gap.options.includes(value)) return 'not one of the list';
  }
  return null;
}

export const gaps: Kind<GapsContent, GapsShown, GapsResponse> = {
  ...plainKind,
  name: 'gaps',
  judge: 'machine',
  content: contentSchema,
  response: responseSchema,
  show,
  empty: () => ({ filled: {} }),
  misfit,
  progress,
  score,
  asText: (shown, response) =>
    progress(shown, response).state === 'empty' ? '' : inText(shown, (key) => filledIn(response, key)),
  rightAnswer: (c) => {
    const keyOf = (gap: Gap) => (gap.by === 'list' ? gap.right : gap.accepted[0]!);
    return inText(show(c), (key) => keyOf(c.gaps.find((gap) => gap.key === key)!));
  },
  statistics: (c, response) =>
    c.gaps.map((gap) => `gap:${gap.key}:${isRight(gap, filledIn(response, gap.key)) ? 'right' : 'wrong'}`),
};
