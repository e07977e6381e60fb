import {
  chosenIn,
  type GridChoiceResponse,
  type GridChoiceShown,
} from '../../../core/kinds/grid-choice/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { CreditMark } from '../shared/CreditMark';
import { OptionMark } from '../shared/OptionMark';

const t = words('gridReading', { chosen: 'chosen', right: 'right answer', nothing: 'nothing chosen' });

/** Each statement with the chosen categories, and the right ones beside them where they were others. */
export function Reading({
  shown,
  response,
  right,
  credits,
}: ReadingProps<GridChoiceShown, GridChoiceResponse>) {
  return (
    <ul className="divide-y divide-line">
      {shown.statements.map(({ key, text }) => {
        const [chosen, wanted] = [chosenIn(response, key), right ? chosenIn(right, key) : []];
        const told = shown.categories.filter((c) => chosen.includes(c.key) || wanted.includes(c.key));
        return (
          <li key={key} className="flex flex-wrap items-start gap-x-4 gap-y-1 py-1.5">
            <span className="min-w-[12rem] flex-1">{text}</span>
            <span className="flex flex-wrap items-center gap-x-3">
              {told.length === 0 && <span className="text-soft">{t('nothing')}</span>}
              {told.map((category) => {
                const on = chosen.includes(category.key);
                return (
                  <span key={category.key} className="inline-flex items-center gap-1.5">
                    {on && <OptionMark round={shown.mode === 'one'} on />}
                    {category.text}
                    {on && <span className="sr-only">– {t('chosen')}</span>}
                    {wanted.includes(category.key) && !on && (
                      <span className="rounded bg-wash px-1.5 text-[0.85em] text-kelp">{t('right')}</span>
                    )}
                  </span>
                );
              })}
              <CreditMark credits={credits} component={key} />
            </span>
          </li>
        );
      })}
    </ul>
  );
}
