import { Check, Eraser, Pencil, Undo2 } from 'lucide-react';
import { useId, useRef, useState } from 'react';
import { missingOf, showPlace, tellObject } from '../../../core/kinds/plot/candidate';
import {
  drawnOf,
  type Drawn,
  type Place,
  type PlotResponse,
  type PlotShown,
} from '../../../core/kinds/plot/response';
import { exactOf } from '../../../core/numbers/exact';
import { indexOf, placeAt, type Axis } from '../../../core/kinds/shared/axis';
import { Button } from '../../ui/Button';
import { say as sayMessage } from '../../words';
import { announce as say } from '../../ui/announce';
import type { AnswerProps } from '../answerProps';
import { FIELD_RING, OptionMark } from '../shared/OptionMark';
import { TypedPlace } from '../shared/TypedPlace';
import { nextOpen, withObject, withoutObject, withPlace } from './drawing';
import { Figure } from './Figure';
import { spotOf, tallOf, WIDE, widestToDraw, type Spot } from './geometry';
import { Plane } from './Plane';
import { t } from './words';

type Props = AnswerProps<PlotShown, PlotResponse>;

const STEPS: Readonly<Record<string, readonly [number, number]>> = {
  ArrowLeft: [-1, 0],
  ArrowRight: [1, 0],
  ArrowUp: [0, 1],
  ArrowDown: [0, -1],
};

/** How near a press is to a point that it takes it up, as a share of the width. */
const REACH = 0.035;

const moved = (axis: Axis, value: string, by: number) => placeAt(axis, indexOf(axis, exactOf(value)) + by);
const middleOf = (axis: Axis) => placeAt(axis, Math.round(indexOf(axis, exactOf(axis.to)) / 2));

/** The objects to be drawn; the current one has a pencil, complete ones a tick. */
function Objects({
  shown,
  response,
  current,
  onChoose,
}: Pick<Props, 'shown' | 'response'> & {
  readonly current: string;
  readonly onChoose: (key: string) => void;
}) {
  return (
    <div role="group" aria-label={t('objects')} className="mb-2 flex flex-wrap gap-2">
      {shown.objects.map((object) => {
        const on = object.key === current;
        const complete = missingOf(object, drawnOf(response, object.key)) === null;
        return (
          <button
            key={object.key}
            type="button"
            aria-pressed={on}
            onClick={() => onChoose(object.key)}
            className={`inline-flex min-h-11 items-center gap-1.5 rounded-full border px-3.5 ${on ? 'border-kelp bg-wash font-semibold text-kelp' : 'border-line bg-card'}`}
          >
            {on && <Pencil aria-hidden className="size-4" />}
            {object.text}
            {complete && <Check aria-hidden className="size-4" />}
            <span className="sr-only">, {t(complete ? 'done' : 'open')}</span>
          </button>
        );
      })}
    </div>
  );
}

/** Where the arrow keys are: a cross. */
const Cursor = ({ spot: { x, y }, unit }: { readonly spot: Spot; readonly unit: number }) => (
  <path
    d={`M ${x - 12 * unit} ${y} h ${24 * unit} M ${x} ${y - 12 * unit} v ${24 * unit}`}
    className="stroke-brick"
    strokeWidth={2 * unit}
  />
);

/** Whether the border of a half-plane belongs to it. */
function Border({ drawn, onChange }: { readonly drawn: Drawn; readonly onChange: (next: Drawn) => void }) {
  const group = useId();
  return (
    <div role="radiogroup" aria-label={t('border')} className="mt-2 flex flex-wrap gap-2">
      {(['solid', 'dashed'] as const).map((boundary) => (
        <label
          key={boundary}
          className={`relative inline-flex min-h-11 cursor-pointer items-center gap-2.5 rounded-lg border px-3 ${FIELD_RING} ${drawn.boundary === boundary ? 'border-kelp bg-wash' : 'border-line bg-card'}`}
        >
          <input
            type="radio"
            name={group}
            checked={drawn.boundary === boundary}
            onChange={() => onChange({ ...drawn, boundary })}
            className="absolute size-px opacity-0"
          />
          <OptionMark round on={drawn.boundary === boundary} />
          {t(boundary)}
        </label>
      ))}
    </div>
  );
}

/** A drawing plane: by pointer, touch and keys, or by typed coordinates. */
export function Answer({ shown, response, onChange, promptId, needId }: Props) {
  const [current, setCurrent] = useState(() => nextOpen(shown.objects, response, shown.objects[0]!.key));
  const [cursor, setCursor] = useState<Place>([middleOf(shown.x), middleOf(shown.y)]);
  const [before, setBefore] = useState<readonly PlotResponse[]>([]);
  const [hint, setHint] = useState('');
  const [focused, setFocused] = useState(false);
  const [dragged, setDragged] = useState<number | null>(null);
  const frame = useRef<HTMLDivElement>(null);
  const object = shown.objects.find(({ key }) => key === current)!;
  const drawn = drawnOf(response, current);
  const show = (place: Place) => showPlace(place, shown.locale);

  const change = (next: PlotResponse) => {
    setBefore((all) => [...all.slice(-49), response]);
    setHint('');
    onChange(next);
  };
  const draw = (next: Drawn) => change(withObject(response, current, next));

  const set = (place: Place) => {
    setCursor(place);
    const next = withPlace(object, drawn, place);
    if (!next) {
      setHint(t('full', { text: object.text }));
      return;
    }
    draw(next);
    const missing = missingOf(object, next);
    say(t('set', { text: object.text, place: show(place), missing: missing ? sayMessage(missing) : '' }));
    if (missing === null && object.sort !== 'points')
      setCurrent(nextOpen(shown.objects, withObject(response, current, next), current));
  };
  const undo = () => {
    const last = before.at(-1);
    if (!last) return;
    setBefore(before.slice(0, -1));
    setHint('');
    onChange(last);
    say(t('undone'));
  };

  /** The place of the grid that is nearest to the pointer. */
  const placeUnder = (event: React.PointerEvent): { place: Place; point: number | null } => {
    const box = frame.current!.querySelector('rect')!.getBoundingClientRect();
    const [across, up] = [(event.clientX - box.left) / box.width, 1 - (event.clientY - box.top) / box.height];
    const last = (axis: Axis) => indexOf(axis, exactOf(axis.to));
    const place: Place = [
      placeAt(shown.x, Math.round(across * last(shown.x))),
      placeAt(shown.y, Math.round(up * last(shown.y))),
    ];
    const tall = tallOf(shown);
    const point = drawn.points.findIndex((one) => {
      const { x, y } = spotOf(shown, one);
      return Math.hypot(x / WIDE - across, (tall - y) / WIDE - (up * tall) / WIDE) < REACH;
    });
    return { place, point: point < 0 ? null : point };
  };
  const onPointerDown = (event: React.PointerEvent<HTMLDivElement>) => {
    // A plane that is not laid out yet has no place under the pointer.
    if (event.button !== 0 || frame.current!.querySelector('rect')!.getBoundingClientRect().width === 0)
      return;
    const { place, point } = placeUnder(event);
    // The first corner again closes a shape; any other point is taken up.
    const closes = object.sort === 'polygon' && point === 0 && drawn.points.length >= 3 && !drawn.closed;
    if (point === null || closes) return set(closes ? drawn.points[0]! : place);
    event.currentTarget.setPointerCapture(event.pointerId);
    setBefore((all) => [...all.slice(-49), response]);
    setDragged(point);
  };
  const onPointerMove = (event: React.PointerEvent) => {
    if (dragged === null) return;
    const { place } = placeUnder(event);
    const taken = drawn.points.some(([x, y], i) => i !== dragged && x === place[0] && y === place[1]);
    const still = drawn.points[dragged]!;
    if (taken || (still[0] === place[0] && still[1] === place[1])) return;
    setCursor(place);
    onChange(withObject(response, current, { ...drawn, points: drawn.points.with(dragged, place) }));
  };
  const onPointerUp = () => {
    if (dragged === null) return;
    say(t('moved', { text: object.text, place: show(drawn.points[dragged]!) }));
    setDragged(null);
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    const step = STEPS[event.key];
    if (step) {
      const place: Place = [moved(shown.x, cursor[0], step[0]), moved(shown.y, cursor[1], step[1])];
      setCursor(place);
      say(t('at', { place: show(place) }));
    } else if (event.key === 'Enter' || event.key === ' ') set(cursor);
    else if (event.key === 'Backspace') undo();
    else return;
    event.preventDefault();
  };
  const spot = spotOf(shown, cursor);
  return (
    <div role="group" aria-labelledby={promptId} aria-describedby={needId} className="@container">
      <div
        style={{ '--widest': `calc(${widestToDraw(shown)} + 0.75rem)` } as React.CSSProperties}
        className="grid gap-x-5 @[46rem]:grid-cols-[minmax(0,var(--widest))_19rem] @[46rem]:grid-rows-[auto_1fr]"
      >
        <Objects shown={shown} response={response} current={current} onChoose={setCurrent} />
        {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-element-interactions */}
        <div
          ref={frame}
          role="application"
          aria-label={`${t('drawing', { text: object.text })}. ${t('plane')}`}
          tabIndex={0}
          onKeyDown={onKeyDown}
          onPointerDown={onPointerDown}
          onPointerMove={onPointerMove}
          onPointerUp={onPointerUp}
          onFocus={() => setFocused(true)}
          onBlur={() => setFocused(false)}
          className="w-full max-w-(--widest) cursor-crosshair @[46rem]:col-start-1 @[46rem]:row-span-2 @[46rem]:row-start-1 touch-pan-y rounded-lg border border-line bg-card p-1"
        >
          <Plane shown={shown} widest={widestToDraw(shown)}>
            {(unit) => (
              <>
                {shown.objects
                  .filter(({ key }) => key !== current)
                  .map((one) => (
                    <Figure
                      key={one.key}
                      shown={shown}
                      object={one}
                      drawn={drawnOf(response, one.key)}
                      look="other"
                      unit={unit}
                    />
                  ))}
                <Figure shown={shown} object={object} drawn={drawn} look="current" unit={unit} />
                {focused && <Cursor spot={spot} unit={unit} />}
              </>
            )}
          </Plane>
        </div>
        <div className="@[46rem]:col-start-2">
          <p className="mt-1 text-[0.85rem] text-soft">
            {[
              shown.x.label && `${t('across')}: ${shown.x.label}`,
              shown.y.label && `${t('up')}: ${shown.y.label}`,
            ]
              .filter(Boolean)
              .join(' · ')}
          </p>
          <p className="text-[0.92rem]">
            <b>{t('drawing', { text: object.text })}</b>
            {drawn.points.length > 0 && ` – ${tellObject(shown, object, drawn, sayMessage)}`}
          </p>
          {object.sort === 'half-plane' && <Border drawn={drawn} onChange={draw} />}
          <div className="mt-2 flex flex-wrap gap-2">
            {object.sort === 'polygon' && !drawn.closed && drawn.points.length >= 3 && (
              <Button className="min-h-11" onClick={() => draw({ ...drawn, closed: true })}>
                {t('close')}
              </Button>
            )}
            <Button className="min-h-11" disabled={before.length === 0} onClick={undo}>
              <Undo2 aria-hidden className="size-4" /> {t('undo')}
            </Button>
            <Button
              className="min-h-11"
              disabled={drawn.points.length === 0}
              onClick={() => {
                change(withoutObject(response, current));
                say(t('cleared', { text: object.text }));
              }}
            >
              <Eraser aria-hidden className="size-4" /> {t('clear', { text: object.text })}
            </Button>
            {shown.objects.length > 1 && (
              <Button
                className="min-h-11"
                disabled={Object.keys(response.objects).length === 0}
                onClick={() => {
                  change({ objects: {} });
                  say(t('allCleared'));
                }}
              >
                {t('clearAll')}
              </Button>
            )}
          </div>
          <TypedPlace
            axes={[shown.x, shown.y]}
            labels={[t('across'), t('up')]}
            locale={shown.locale}
            onSet={([x, y]) => set([x!, y!])}
          />
          <p role="status" className="text-[0.88rem] text-marigold empty:hidden">
            {hint}
          </p>
        </div>
      </div>
    </div>
  );
}
