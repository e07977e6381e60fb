import type { GapsResponse, GapsShown } from '../../../core/kinds/gaps/response';
import { cutAtGaps } from '../../../core/kinds/gaps/pieces';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';

const t = words('gapsReading', { empty: 'empty' });

export function Reading({ shown, response }: ReadingProps<GapsShown, GapsResponse>) {
  return (
    <p className="leading-8">
      {cutAtGaps(shown).map((piece, i) => {
        if ('text' in piece) return <span key={i}>{piece.text}</span>;
        const value = (response.filled[piece.gap.key] ?? '').trim();
        return (
          <span
            key={i}
            className={`mx-0.5 border-b-2 px-1.5 ${value ? 'border-filled font-semibold' : 'border-edge text-soft'}`}
          >
            {value || t('empty')}
          </span>
        );
      })}
    </p>
  );
}
