import type { GapsResponse, GapsShown } from '../../../core/kinds/gaps/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { CreditMark } from '../shared/CreditMark';
import { GapText } from './GapText';

const t = words('gapsReading', { empty: 'empty' });

/** The text as it was filled in, with what was found at each gap. */
export function Reading({ shown, response, credits }: ReadingProps<GapsShown, GapsResponse>) {
  return (
    <div>
      <GapText
        shown={shown}
        leading="leading-8"
        gap={({ key }) => {
          const value = (response.filled[key] ?? '').trim();
          return (
            <span key={key} className="mx-0.5 whitespace-nowrap">
              <span
                className={`border-b-2 px-1.5 whitespace-normal ${value ? 'border-filled font-semibold' : 'border-edge text-soft'}`}
              >
                {value || (
                  <>
                    <span aria-hidden>–</span>
                    <span className="sr-only">{t('empty')}</span>
                  </>
                )}
              </span>
              {'\u00a0'}
              <span className="inline-flex items-center gap-1 align-middle">
                <CreditMark credits={credits} component={key} />
              </span>
            </span>
          );
        }}
      />
    </div>
  );
}
