import { message, type Say } from '../../messages/message';
import { compareExact, exactOf, showExact } from '../../numbers/exact';
import { numberFormatOf } from '../../numbers/numberFormat';
import { plainCandidate, type CandidateKind } from '../contract';
import { isOnAxis } from '../shared/axis';
import { sortOf, type NumberLineResponse, type NumberLineShown, type Piece } from './response';

/** Does an interval run from left to right, and has a point both ends closed? */
function isSound(piece: Piece): boolean {
  const { from, to, fromOpen, toOpen } = piece;
  if (from === null || to === null) return from !== to;
  const order = compareExact(exactOf(from), exactOf(to));
  return order < 0 || (order === 0 && !fromOpen && !toOpen && from === to);
}

function misfit({ axis, sorts, most }: NumberLineShown, { pieces }: NumberLineResponse) {
  if (pieces.length > most) return message('number-line.tooMany', { count: most });
  for (const piece of pieces) {
    if (!isSound(piece) || !sorts.includes(sortOf(piece))) return message('number-line.unsound');
    for (const place of [piece.from, piece.to])
      if (place !== null && !isOnAxis(axis, exactOf(place))) return message('number-line.outside');
  }
  return null;
}

/** A figure as the round writes it. */
export const showFigure = (text: string, locale: string): string =>
  showExact(exactOf(text), numberFormatOf(locale).decimal);

/** A piece in words: “more than −2, up to and including 2”. */
export function tellPiece({ from, to, fromOpen, toOpen }: Piece, locale: string, say: Say): string {
  const figure = (text: string | null) => (text === null ? '' : showFigure(text, locale));
  const values = { from: figure(from), to: figure(to) };
  const tell = (code: string) => say(message(`number-line.${code}`, values));
  if (from !== null && from === to) return tell('point');
  const begins = from === null ? '' : tell(fromOpen ? 'above' : 'from');
  const ends = to === null ? '' : tell(toOpen ? 'below' : 'upTo');
  return [begins, ends].filter(Boolean).join(', ');
}

export const numberLine: CandidateKind<NumberLineShown, NumberLineResponse> = {
  ...plainCandidate,
  name: 'number-line',
  empty: () => ({ pieces: [] }),
  misfit,
  progress: (_, { pieces }) =>
    pieces.length === 0
      ? { state: 'empty', missing: message('number-line.empty') }
      : { state: 'done', missing: null },
  guessing: ({ most }) => (most > 1 ? 'within' : 'free'),
  rule: ({ most }) => (most > 1 ? message('number-line.rule') : null),
  describe: ({ locale }, { pieces }, say) => ({
    form: 'words',
    text: pieces.map((piece) => tellPiece(piece, locale, say)).join('; '),
  }),
};
