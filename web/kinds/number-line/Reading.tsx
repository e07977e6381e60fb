import { tellPiece } from '../../../core/kinds/number-line/candidate';
import type { NumberLineResponse, NumberLineShown } from '../../../core/kinds/number-line/response';
import { say, words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { Line, PieceView, TOP } from './Line';

const t = words('numberLineReading', {
  nothing: 'Nothing was marked.',
  right: 'Right: {{text}} (drawn dashed above)',
});

/** The line as it was marked; what was meant stands dashed above it. */
export function Reading({ shown, response, right }: ReadingProps<NumberLineShown, NumberLineResponse>) {
  const told = (pieces: NumberLineResponse['pieces']) =>
    pieces.map((piece) => tellPiece(piece, shown.locale, say)).join('; ');
  return (
    <div className="max-w-[34rem]">
      <Line shown={shown}>
        {right?.pieces.map((piece, i) => (
          <PieceView key={`right ${i}`} shown={shown} piece={piece} look="meant" y={TOP - 9} />
        ))}
        {response.pieces.map((piece, i) => (
          <PieceView key={i} shown={shown} piece={piece} look="plain" />
        ))}
      </Line>
      {shown.axis.label && <p className="text-[0.85rem] text-soft">{shown.axis.label}</p>}
      <p className={response.pieces.length === 0 ? 'text-soft' : ''}>
        {told(response.pieces) || t('nothing')}
      </p>
      {right && <p className="text-kelp">{t('right', { text: told(right.pieces) })}</p>}
    </div>
  );
}
