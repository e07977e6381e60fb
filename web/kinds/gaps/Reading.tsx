import type { GapsResponse, GapsShown } from '../../../core/kinds/gaps/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { GapText } from './GapText';

const t = words('gapsReading', { empty: 'empty' });

export function Reading({ shown, response }: ReadingProps<GapsShown, GapsResponse>) {
  return (
    <div>
      <GapText
        shown={shown}
        leading="leading-8"
        gap={({ key }) => {
          const value = (response.filled[key] ?? '').trim();
          return (
            <span
              key={key}
              className={`mx-0.5 border-b-2 px-1.5 ${value ? 'border-filled font-semibold' : 'border-edge text-soft'}`}
            >
              {value || t('empty')}
            </span>
          );
        }}
      />
    </div>
  );
}
