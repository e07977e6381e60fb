import { sizeOf, type HotAreaResponse, type HotAreaShown } from '../../../core/kinds/hot-area/response';
import { holds } from '../../../core/kinds/hot-area/shapes';
import { textOf } from '../../../core/kinds/shared/entries';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { CreditMark } from '../shared/CreditMark';
import { PictureWithAreas, ShapeView } from './PictureWithAreas';

const t = words('hotAreaReading', {
  nothing: 'Nothing was chosen.',
  mark: 'Pin {{number}}: {{text}} ({{across}} % across, {{down}} % down)',
  outside: 'outside the named areas',
  right: 'right answer',
});

/** The picture with what was chosen or marked, and dashed what was meant. */
export function Reading({ shown, response, right, credits }: ReadingProps<HotAreaShown, HotAreaResponse>) {
  const { chosen, marks } = response;
  const areaAt = (mark: (typeof marks)[number]) => shown.areas.find(({ shape }) => holds(shape, mark));
  const wanted = right
    ? shown.areas.filter(
        ({ key, shape }) => right.chosen.includes(key) || right.marks.some((mark) => holds(shape, mark)),
      )
    : [];
  return (
    <div className="max-w-[34rem]">
      <PictureWithAreas
        shown={shown}
        shapes={
          <>
            {shown.areas
              .filter(({ key }) => chosen.includes(key))
              .map(({ key, shape }) => (
                <ShapeView key={key} shape={shape} className="fill-filled/30 stroke-filled stroke-[3px]" />
              ))}
            {wanted.map(({ key, shape }) => (
              <ShapeView
                key={key}
                shape={shape}
                className="fill-transparent stroke-kelp stroke-[3px] [stroke-dasharray:7_5]"
              />
            ))}
          </>
        }
      >
        {marks.map(({ x, y }, i) => (
          <span
            key={i}
            aria-hidden
            style={{ left: `${x / 10}%`, top: `${y / 10}%` }}
            className="absolute grid size-7 -translate-1/2 place-items-center rounded-full border-2 border-white bg-filled text-[0.8rem] font-bold text-white"
          >
            {i + 1}
          </span>
        ))}
      </PictureWithAreas>
      {sizeOf(response) === 0 && <p className="text-soft">{t('nothing')}</p>}
      <ul className="mt-1 space-y-0.5">
        {chosen.map((key) => (
          <li key={key} className="flex items-center gap-2">
            {textOf(shown.areas, key)} <CreditMark credits={credits} component={key} />
          </li>
        ))}
        {marks.map((mark, i) => {
          const area = areaAt(mark);
          return (
            <li key={i} className="flex items-center gap-2">
              {t('mark', {
                number: i + 1,
                text: area?.text ?? t('outside'),
                across: Math.round(mark.x / 10),
                down: Math.round(mark.y / 10),
              })}
              {area && <CreditMark credits={credits} component={area.key} />}
            </li>
          );
        })}
        {wanted
          .filter(({ key }) => !chosen.includes(key) && !marks.some((mark) => areaAt(mark)?.key === key))
          .map(({ key, text }) => (
            <li key={key} className="flex items-center gap-2">
              {text}
              <span className="rounded bg-wash px-1.5 text-[0.85em] text-kelp">{t('right')}</span>
            </li>
          ))}
      </ul>
    </div>
  );
}
