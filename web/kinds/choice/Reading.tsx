import { Check } from 'lucide-react';
import type { ChoiceResponse, ChoiceShown } from '../../../core/kinds/choice/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { OptionBody } from './OptionBody';

const t = words('choiceReading', { chosen: 'chosen', nothing: 'Nothing was chosen.' });

/** The options as they stood, with the chosen ones marked by shape and word. */
export function Reading({ shown, response }: ReadingProps<ChoiceShown, ChoiceResponse>) {
  return (
    <>
      <ul className="space-y-1">
        {shown.options.map((option) => {
          const { key } = option;
          const on = response.chosen.includes(key);
          return (
            <li key={key} className={`flex items-center gap-2.5 ${on ? '' : 'text-soft'}`}>
              <span
                aria-hidden
                className={`grid size-4 flex-none place-items-center border ${shown.mode === 'one' ? 'rounded-full' : 'rounded-sm'} ${on ? 'border-filled bg-filled text-on' : 'border-edge'}`}
              >
                {on && <Check className="size-3" strokeWidth={3} />}
              </span>
              <OptionBody option={option} />
              {on && <span className="text-[0.85em] text-soft">– {t('chosen')}</span>}
            </li>
          );
        })}
      </ul>
      {response.chosen.length === 0 && <p className="mt-1 text-soft">{t('nothing')}</p>}
    </>
  );
}
