import { message, type Message } from '../../messages/message';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { isSameOption } from '../shared/entries';
import { filledIn, isOneWord } from './filled';
import { blocksOf, gapsInOrder, type Piece, type Row } from './pieces';
import type { GapsResponse, GapsShown } from './response';

function progress(shown: GapsShown, response: GapsResponse): Progress {
  const gaps = gapsInOrder(shown);
  const open = gaps.filter(({ gap }) => filledIn(response, gap.key) === '');
  if (open.length === gaps.length)
    return { state: 'empty', missing: message('gaps.allEmpty', { count: open.length }) };
  const wordy = gaps.find(
    ({ gap }) => gap.by === 'typing' && gap.oneWord && !isOneWord(filledIn(response, gap.key)),
  );
  if (wordy) return { state: 'part', missing: message('gaps.oneWordOnly', { gap: wordy.position }) };
  if (open.length === 0) return { state: 'done', missing: null };
  const list = open.map(({ position }) => position).join(', ');
  return { state: 'part', missing: message('gaps.someEmpty', { count: open.length, gaps: list }) };
}

function misfit(shown: GapsShown, response: GapsResponse): Message | null {
  for (const [key, value] of Object.entries(response.filled)) {
    const gap = shown.gaps.find((g) => g.key === key);
    if (!gap) return message('gaps.noGap');
    const listed = gap.by === 'typing' || gap.options.some((option) => isSameOption(option, value));
    if (value.trim() !== '' && !listed) return message('gaps.notListed');
  }
  return null;
}

export const gaps: CandidateKind<GapsShown, GapsResponse> = {
  ...plainCandidate,
  name: 'gaps',
  empty: () => ({ filled: {} }),
  misfit,
  fitting: ({ gaps: known }, { filled }) => ({
    filled: Object.fromEntries(
      Object.entries(filled).filter(([key]) => known.some((gap) => gap.key === key)),
    ),
  }),
  progress,
  describe: (shown, response) => {
    const told = (pieces: readonly Piece[]) =>
      pieces
        .map((piece) => ('text' in piece ? piece.text : `[${filledIn(response, piece.gap.key) || ' '}]`))
        .join('');
    const rowText = (row: Row) => row.map(told).join(' · ');
    const text = blocksOf(shown)
      .map((block) =>
        block.is === 'text'
          ? told(block.pieces)
          : [...(block.head ? [block.head] : []), ...block.rows].map(rowText).join('\n'),
      )
      .join('\n');
    return { form: 'words', text: progress(shown, response).state === 'empty' ? '' : text };
  },
};
