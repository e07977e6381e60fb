import { useState } from 'react';
import { sizeOf, type HotAreaResponse, type HotAreaShown } from '../../../core/kinds/hot-area/response';
import { holds, insideOf, type PicturePoint } from '../../../core/kinds/hot-area/shapes';
import { announce as say } from '../../ui/announce';
import { words } from '../../words';
import type { AnswerProps } from '../answerProps';
import { ClearButton } from '../shared/ClearButton';
import { FIELD_RING, OptionMark } from '../shared/OptionMark';
import { PictureWithAreas, ShapeView } from './PictureWithAreas';

const t = words('hotAreaAnswer', {
  choose: 'Press an area on the picture, or choose it by its name.',
  mark: 'Press the picture to place a pin. Move a pin with the arrow keys; press it, or press Delete, to remove it.',
  names: 'Areas on the picture',
  markAt: 'Place a pin by name',
  markOn: 'Place a pin on {{text}}',
  markName: 'Pin {{number}}, {{across}} % across, {{down}} % down. Arrow keys move it; press to remove it.',
  moved: '{{across}} % across, {{down}} % down',
  removed: 'The pin is removed.',
  set: 'Pin {{number}} is placed at {{across}} % across, {{down}} % down.',
  count: '{{count}} of {{limit}}',
  full_one: 'You can choose only {{count}}. Remove your choice first.',
  full_other: 'You can choose only {{count}}. Remove one choice first.',
});

type Props = AnswerProps<HotAreaShown, HotAreaResponse>;

const percent = (point: PicturePoint) => ({
  across: Math.round(point.x / 10),
  down: Math.round(point.y / 10),
});

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, -1],
  ArrowDown: [0, 1],
};

interface Choosing extends Pick<Props, 'shown' | 'response' | 'needId'> {
  readonly onPress: (key: string) => void;
}

/** The named areas, for the keyboard and for people who do not see the picture. */
function Names({ shown, response, needId, onPress }: Choosing) {
  return (
    <div role="group" aria-label={t('names')} className="mt-2 flex flex-wrap gap-2">
      {shown.areas.map(({ key, text }) => {
        const on = response.chosen.includes(key);
        return (
          <label
            key={key}
            className={`relative flex min-h-11 cursor-pointer items-center gap-2.5 rounded-lg border px-3 ${FIELD_RING} ${on ? 'border-kelp bg-wash' : 'border-line bg-card'}`}
          >
            <input
              type="checkbox"
              checked={on}
              aria-describedby={needId}
              onChange={() => onPress(key)}
              className="absolute size-px opacity-0"
            />
            <OptionMark round={false} on={on} />
            {text}
          </label>
        );
      })}
    </div>
  );
}

interface MarkProps {
  readonly mark: PicturePoint;
  readonly number: number;
  readonly onMove: (to: PicturePoint) => void;
  readonly onRemove: () => void;
}

function MarkView({ mark, number, onMove, onRemove }: MarkProps) {
  const kept = (value: number) => Math.max(0, Math.min(1000, value));
  return (
    <button
      type="button"
      aria-label={t('markName', { number, ...percent(mark) })}
      onClick={(event) => {
        event.stopPropagation();
        onRemove();
      }}
      onKeyDown={(event) => {
        const step = STEPS[event.key];
        if (event.key === 'Delete' || event.key === 'Backspace') onRemove();
        else if (step) {
          const by = event.shiftKey ? 50 : 10;
          onMove({ x: kept(mark.x + step[0] * by), y: kept(mark.y + step[1] * by) });
        } else return;
        event.preventDefault();
      }}
      style={{ left: `${mark.x / 10}%`, top: `${mark.y / 10}%` }}
      className="absolute grid size-11 -translate-1/2 place-items-center rounded-full"
    >
      <span className="grid size-7 place-items-center rounded-full border-2 border-white bg-filled text-[0.8rem] font-bold text-white shadow-float">
        {number}
      </span>
    </button>
  );
}

/** Areas of a picture chosen, or marks set on it. */
export function Answer({ shown, response, onChange, promptId, needId }: Props) {
  const [refused, setRefused] = useState(false);
  const { chosen, marks } = response;
  const hasRoom = () => {
    const room = sizeOf(response) < shown.limit;
    setRefused(!room);
    return room;
  };
  const pressArea = (key: string) => {
    if (chosen.includes(key)) {
      setRefused(false);
      onChange({ chosen: chosen.filter((one) => one !== key), marks });
    } else if (hasRoom()) onChange({ chosen: [...chosen, key], marks });
  };
  const setMark = (point: PicturePoint) => {
    if (!hasRoom()) return;
    onChange({ chosen, marks: [...marks, point] });
    say(t('set', { number: marks.length + 1, ...percent(point) }));
  };
  const onPress = (point: PicturePoint) => {
    if (shown.mode === 'mark') return setMark(point);
    const area = shown.areas.find(({ shape }) => holds(shape, point));
    if (area) pressArea(area.key);
  };
  const choosing = shown.mode === 'choose';
  return (
    <div role="group" aria-labelledby={promptId} aria-describedby={needId}>
      <p className="mb-2 text-[0.88rem] text-soft">{t(shown.mode)}</p>
      <PictureWithAreas
        shown={shown}
        onPress={onPress}
        shapes={
          choosing &&
          shown.areas.map(({ key, shape }) => (
            <ShapeView
              key={key}
              shape={shape}
              className={
                chosen.includes(key)
                  ? 'fill-kelp/30 stroke-kelp stroke-[4px]'
                  : 'fill-white/10 stroke-ink stroke-[1.5px] [stroke-dasharray:5_4]'
              }
            />
          ))
        }
      >
        {marks.map((mark, i) => (
          <MarkView
            key={i}
            mark={mark}
            number={i + 1}
            onMove={(to) => {
              onChange({ chosen, marks: marks.with(i, to) });
              say(t('moved', percent(to)));
            }}
            onRemove={() => {
              setRefused(false);
              onChange({ chosen, marks: marks.toSpliced(i, 1) });
              say(t('removed'));
            }}
          />
        ))}
      </PictureWithAreas>
      {choosing ? (
        <Names shown={shown} response={response} needId={needId} onPress={pressArea} />
      ) : (
        <div role="group" aria-label={t('markAt')} className="mt-2 flex flex-wrap gap-2">
          {shown.areas.map(({ key, text, shape }) => (
            <button
              key={key}
              type="button"
              aria-label={t('markOn', { text })}
              onClick={() => setMark(insideOf(shape))}
              className="min-h-11 rounded-lg border border-line bg-card px-3 hover:border-edge"
            >
              {text}
            </button>
          ))}
        </div>
      )}
      <p className="mt-1.5 text-[0.88rem] text-soft">
        {t('count', { count: sizeOf(response), limit: shown.limit })}
      </p>
      <p role="status" className="text-[0.88rem] text-marigold empty:hidden">
        {refused ? t('full', { count: shown.limit }) : ''}
      </p>
      <ClearButton
        shown={sizeOf(response) > 0}
        onClear={() => {
          setRefused(false);
          onChange({ chosen: [], marks: [] });
        }}
      />
    </div>
  );
}
