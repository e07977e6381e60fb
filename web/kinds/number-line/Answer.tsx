import { Undo2, X } from 'lucide-react';
import { useId, useRef, useState } from 'react';
import { showFigure, tellPiece } from '../../../core/kinds/number-line/candidate';
import {
  sortOf,
  type NumberLineResponse,
  type NumberLineShown,
  type Piece,
} from '../../../core/kinds/number-line/response';
import { indexOf, placeAt } from '../../../core/kinds/shared/axis';
import { compareExact, exactOf } from '../../../core/numbers/exact';
import { Button } from '../../ui/Button';
import { say as sayMessage, words } from '../../words';
import { announce as say } from '../../ui/announce';
import type { AnswerProps } from '../answerProps';
import { ClearButton } from '../shared/ClearButton';
import { FIELD_RING, OptionMark } from '../shared/OptionMark';
import { TypedPlace } from '../shared/TypedPlace';
import { Line, PieceView, spotAt, TOP } from './Line';

const t = words('numberLineAnswer', {
  tools: 'What you mark',
  point: 'a point',
  interval: 'an interval',
  left: 'all numbers below a point',
  right: 'all numbers above a point',
  line: 'Number line. Arrow keys move the cursor, Space or Enter marks a point.',
  at: '{{figure}}',
  value: 'Value',
  begun: 'The interval begins at {{figure}}. Now mark its other end.',
  set: 'Marked: {{text}}',
  removed: 'Undone.',
  remove: 'Remove: {{text}}',
  undo: 'Undo',
  ends: 'Marked',
  included: '{{figure}} belongs to it',
  excluded: '{{figure}} does not belong to it',
  full_one: 'You can mark only {{count}}. Remove it first.',
  full_other: 'You can mark only {{count}}. Remove one first.',
  sameEnd: 'An interval needs two different ends.',
});

type Props = AnswerProps<NumberLineShown, NumberLineResponse>;
type Tool = 'point' | 'interval' | 'left' | 'right';

const toolsOf = ({ sorts }: NumberLineShown): Tool[] =>
  sorts.flatMap((sort): Tool[] => (sort === 'ray' ? ['left', 'right'] : [sort]));

function between(a: string, b: string): Piece {
  const [from, to] = compareExact(exactOf(a), exactOf(b)) < 0 ? [a, b] : [b, a];
  return { from, to, fromOpen: false, toOpen: false };
}

const PIECES = {
  point: (at: string): Piece => ({ from: at, to: at, fromOpen: false, toOpen: false }),
  left: (at: string): Piece => ({ from: null, to: at, fromOpen: true, toOpen: false }),
  right: (at: string): Piece => ({ from: at, to: null, fromOpen: false, toOpen: true }),
} as const;

/** Whether the ends of a piece belong to it, and a way to take it back. */
function PieceRow({
  piece,
  locale,
  onChange,
  onRemove,
}: {
  readonly piece: Piece;
  readonly locale: string;
  readonly onChange: (next: Piece) => void;
  readonly onRemove: () => void;
}) {
  const text = tellPiece(piece, locale, sayMessage);
  const end = (at: string | null, open: boolean, toggled: Piece) =>
    at !== null &&
    sortOf(piece) !== 'point' && (
      <button
        type="button"
        aria-pressed={!open}
        onClick={() => onChange(toggled)}
        className="inline-flex min-h-11 items-center gap-2 rounded-control border border-line bg-card px-2.5 text-[0.88rem] hover:border-edge"
      >
        <span
          aria-hidden
          className={`size-3.5 rounded-full border-2 border-kelp ${open ? 'bg-card' : 'bg-kelp'}`}
        />
        {t(open ? 'excluded' : 'included', { figure: showFigure(at, locale) })}
      </button>
    );
  return (
    <li className="flex flex-wrap items-center gap-2 rounded-lg border border-line px-3 py-1.5">
      <span className="min-w-0 flex-1 basis-40">{text}</span>
      {end(piece.from, piece.fromOpen, { ...piece, fromOpen: !piece.fromOpen })}
      {end(piece.to, piece.toOpen, { ...piece, toOpen: !piece.toOpen })}
      <button
        type="button"
        aria-label={t('remove', { text })}
        onClick={onRemove}
        className="grid size-11 flex-none place-items-center rounded-control text-soft hover:bg-shade hover:text-ink"
      >
        <X aria-hidden className="size-4" />
      </button>
    </li>
  );
}

/** Points, intervals and rays on a line: by pointer, touch and keys, or by typed places. */
export function Answer({ shown, response, onChange, promptId, needId }: Props) {
  const tools = toolsOf(shown);
  const { axis, locale, most } = shown;
  const { pieces } = response;
  const last = indexOf(axis, exactOf(axis.to));
  const [tool, setTool] = useState<Tool>(tools[0]!);
  const [begun, setBegun] = useState<string | null>(null);
  const [cursor, setCursor] = useState(() => placeAt(axis, Math.round(last / 2)));
  const [before, setBefore] = useState<readonly NumberLineResponse[]>([]);
  const [hint, setHint] = useState('');
  const group = useId();
  const [focused, setFocused] = useState(false);
  const frame = useRef<HTMLDivElement>(null);

  const change = (next: readonly Piece[]) => {
    setBefore((all) => [...all.slice(-49), response]);
    setHint('');
    setBegun(null);
    onChange({ pieces: [...next] });
  };
  const add = (piece: Piece) => {
    change([...pieces, piece]);
    say(t('set', { text: tellPiece(piece, locale, sayMessage) }));
  };
  const set = (place: string) => {
    setCursor(place);
    const there = pieces.findIndex((one) => one.from === place && one.to === place);
    if (tool === 'point' && there >= 0) {
      change(pieces.toSpliced(there, 1));
      return say(t('removed'));
    }
    if (pieces.length >= most) return setHint(t('full', { count: most }));
    if (tool !== 'interval') return add(PIECES[tool](place));
    if (begun === null) {
      setBegun(place);
      setHint('');
      return say(t('begun', { figure: showFigure(place, locale) }));
    }
    if (begun === place) return setHint(t('sameEnd'));
    add(between(begun, place));
  };
  const undo = () => {
    const former = before.at(-1);
    if (!former) return;
    setBefore(before.slice(0, -1));
    setHint('');
    onChange(former);
    say(t('removed'));
  };
  const onPointerDown = (event: React.PointerEvent) => {
    if (event.button !== 0) return;
    const box = frame.current!.querySelector('rect')!.getBoundingClientRect();
    // A line that is not laid out yet has no place under the pointer.
    if (box.width === 0) return;
    set(placeAt(axis, Math.round(((event.clientX - box.left) / box.width) * last)));
  };
  const onKeyDown = (event: React.KeyboardEvent) => {
    const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key];
    if (by !== undefined) {
      const place = placeAt(axis, indexOf(axis, exactOf(cursor)) + by);
      setCursor(place);
      say(t('at', { figure: showFigure(place, locale) }));
    } else if (event.key === 'Enter' || event.key === ' ') set(cursor);
    else if (event.key === 'Backspace') undo();
    else if (event.key === 'Escape' && begun !== null) setBegun(null);
    else return;
    event.preventDefault();
  };
  return (
    <div role="group" aria-labelledby={promptId} aria-describedby={needId}>
      {tools.length > 1 && (
        <div role="radiogroup" aria-label={t('tools')} className="mb-2 flex flex-wrap gap-2">
          {tools.map((one) => (
            <label
              key={one}
              className={`relative inline-flex min-h-11 cursor-pointer items-center gap-2.5 rounded-full border px-3.5 ${FIELD_RING} ${tool === one ? 'border-kelp bg-wash' : 'border-line bg-card'}`}
            >
              <input
                type="radio"
                name={group}
                checked={tool === one}
                onChange={() => {
                  setTool(one);
                  setBegun(null);
                }}
                className="absolute size-px opacity-0"
              />
              <OptionMark round on={tool === one} />
              {t(one)}
            </label>
          ))}
        </div>
      )}
      {/* oxlint-disable-next-line jsx-a11y/no-noninteractive-element-interactions */}
      <div
        ref={frame}
        role="application"
        aria-label={t('line')}
        tabIndex={0}
        onKeyDown={onKeyDown}
        onPointerDown={onPointerDown}
        onFocus={() => setFocused(true)}
        onBlur={() => setFocused(false)}
        className="cursor-crosshair rounded-lg border border-line bg-card px-1 py-3"
      >
        <Line shown={shown}>
          {pieces.map((piece, i) => (
            <PieceView key={i} shown={shown} piece={piece} look="own" />
          ))}
          {begun !== null && <PieceView shown={shown} piece={PIECES.point(begun)} look="plain" />}
          {focused && (
            <path
              d={`M ${spotAt(shown, cursor)} ${TOP - 12} v 7 m -2.5 -3 l 2.5 3.5 l 2.5 -3.5`}
              className="fill-none stroke-brick"
              strokeWidth={1}
            />
          )}
        </Line>
      </div>
      {axis.label && <p className="mt-1 text-[0.85rem] text-soft">{axis.label}</p>}
      {begun !== null && (
        <p className="mt-1 text-[0.92rem]">{t('begun', { figure: showFigure(begun, locale) })}</p>
      )}
      {pieces.length > 0 && (
        <ul aria-label={t('ends')} className="mt-2 space-y-1.5">
          {pieces.map((piece, i) => (
            <PieceRow
              key={i}
              piece={piece}
              locale={locale}
              onChange={(next) => change(pieces.with(i, next))}
              onRemove={() => {
                change(pieces.toSpliced(i, 1));
                say(t('removed'));
              }}
            />
          ))}
        </ul>
      )}
      <TypedPlace axes={[axis]} labels={[t('value')]} locale={locale} onSet={([place]) => set(place!)} />
      <div className="mt-2 flex flex-wrap gap-2">
        <Button className="min-h-11" disabled={before.length === 0} onClick={undo}>
          <Undo2 aria-hidden className="size-4" /> {t('undo')}
        </Button>
        <ClearButton shown={pieces.length > 0} onClear={() => change([])} />
      </div>
      <p role="status" className="text-[0.88rem] text-marigold empty:hidden">
        {hint}
      </p>
    </div>
  );
}
