import { tellObject } from '../../../core/kinds/plot/candidate';
import { drawnOf, type PlotResponse, type PlotShown } from '../../../core/kinds/plot/response';
import { say, words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { CreditMark } from '../shared/CreditMark';
import { Figure } from './Figure';
import { widestToRead } from './geometry';
import { Plane } from './Plane';

const t = words('plotReading', {
  nothing: '{{text}}: not drawn',
  right: 'Right: {{text}} (drawn dotted)',
});

/** The plane as it was drawn, and dotted what was meant where that is something else. */
export function Reading({ shown, response, right, credits }: ReadingProps<PlotShown, PlotResponse>) {
  const isRight = (key: string) => credits.find((c) => c.component === key)?.verdict === 'right';
  const meant = right ? shown.objects.filter(({ key }) => !isRight(key)) : [];
  return (
    <div className="max-w-[26rem]">
      <Plane shown={shown} widest={widestToRead(shown)}>
        {(unit) => (
          <>
            {meant.map((object) => (
              <Figure
                key={object.key}
                shown={shown}
                object={object}
                drawn={drawnOf(right!, object.key)}
                look="meant"
                unit={unit}
              />
            ))}
            {shown.objects.map((object) => (
              <Figure
                key={object.key}
                shown={shown}
                object={object}
                drawn={drawnOf(response, object.key)}
                look="other"
                unit={unit}
              />
            ))}
          </>
        )}
      </Plane>
      <ul className="mt-1 space-y-0.5">
        {shown.objects.map((object) => {
          const drawn = drawnOf(response, object.key);
          return (
            <li key={object.key} className="flex items-center gap-2">
              {drawn.points.length === 0 ? (
                <span className="text-soft">{t('nothing', { text: object.text })}</span>
              ) : (
                tellObject(shown, object, drawn, say)
              )}
              <CreditMark credits={credits} component={object.key} />
            </li>
          );
        })}
        {meant.map((object) => (
          <li key={`${object.key} right`} className="text-kelp">
            {t('right', { text: tellObject(shown, object, drawnOf(right!, object.key), say) })}
          </li>
        ))}
      </ul>
    </div>
  );
}
