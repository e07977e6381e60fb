import { DndContext, useDraggable, useDroppable, type DragEndEvent } from '@dnd-kit/core';
import { X } from 'lucide-react';
import { useId, useMemo, useRef, useState } from 'react';
import type { MatchResponse, MatchShown } from '../../../core/kinds/match/response';
import { textOf } from '../../../core/kinds/shared/entries';
import { announce as say } from '../../ui/announce';
import type { AnswerProps } from '../answerProps';
import { SILENT_DRAGGING, useDragSensors } from '../shared/dragSensors';
import { Lines, type Line } from './Lines';
import { t } from './words';

type Props = AnswerProps<MatchShown, MatchResponse>;

interface Held {
  readonly left: string;
  /** The partner that the arrow keys have reached. */
  readonly over: number | null;
}

const ENTRY =
  'min-h-11 w-full min-w-0 cursor-grab touch-manipulation rounded-lg border bg-card px-2.5 py-1.5 text-left break-words hyphens-auto select-none';

interface EntryProps extends Pick<React.ComponentProps<'button'>, 'id' | 'onKeyDown' | 'children'> {
  /** Its column and key, as what is dragged and what it is dragged to are known. */
  readonly name: string;
  readonly look: string;
  readonly held?: boolean;
  readonly onPress: () => void;
}

/** Pressed, or dragged by its whole body to a partner in the other column. */
function Entry({ name, look, held, onPress, ...button }: EntryProps) {
  const { listeners, setNodeRef: drags, transform, isDragging } = useDraggable({ id: name });
  const { setNodeRef: takes, isOver } = useDroppable({ id: name });
  return (
    <button
      type="button"
      ref={(node) => {
        drags(node);
        takes(node);
      }}
      {...button}
      {...listeners}
      aria-pressed={held}
      onClick={onPress}
      style={transform ? { transform: `translate3d(${transform.x}px, ${transform.y}px, 0)` } : undefined}
      className={`${ENTRY} ${isOver && !isDragging ? 'border-kelp bg-wash' : look} ${isDragging ? 'relative z-20 shadow-float' : ''}`}
    />
  );
}

/** Two columns and lines between them; for people who listen, a list of pairs. */
export function Answer({ shown, response, onChange, promptId, needId }: Props) {
  const id = useId();
  const frame = useRef<HTMLDivElement>(null);
  const [held, setHeld] = useState<Held | null>(null);
  const [hint, setHint] = useState('');
  const { pairs } = response;
  const leftText = (key: string) => textOf(shown.left, key);
  const rightText = (key: string) => textOf(shown.right, key);

  const take = (left: string) => {
    setHint('');
    const same = held?.left === left;
    setHeld(same ? null : { left, over: null });
    say(t(same ? 'letGo' : 'taken', { text: leftText(left) }));
  };
  const join = (left: string, partner: string) => {
    // Where a partner is used once, its former line goes.
    const kept = Object.entries(pairs).filter(([, other]) => !shown.once || other !== partner);
    const moved = kept.length < Object.keys(pairs).length && pairs[left] !== partner;
    const values = { text: leftText(left), partner: rightText(partner) };
    setHint(moved ? t('used', values) : '');
    setHeld(null);
    onChange({ pairs: { ...Object.fromEntries(kept), [left]: partner } });
    say(t('put', values));
  };
  const sensors = useDragSensors();
  const drop = ({ active, over }: DragEndEvent) => {
    const dragged = [String(active.id), String(over?.id)];
    const [left, right] = ['left/', 'right/'].map((side) =>
      dragged.find((name) => name.startsWith(side))?.slice(side.length),
    );
    if (left !== undefined && right !== undefined) join(left, right);
  };
  const remove = (left: string) => {
    setHint('');
    onChange({ pairs: Object.fromEntries(Object.entries(pairs).filter(([one]) => one !== left)) });
    say(t('removed', { text: leftText(left) }));
  };
  const carry = ({ left, over }: Held, by: 1 | -1) => {
    const all = shown.right.length;
    const next = over === null ? (by === 1 ? 0 : all - 1) : (over + by + all) % all;
    setHeld({ left, over: next });
    say(t('over', { partner: shown.right[next]!.text, place: next + 1, all }));
  };
  const onKey = (event: React.KeyboardEvent) => {
    if (!held) return;
    const back = event.key === 'ArrowUp' || event.key === 'ArrowLeft';
    if (back || event.key === 'ArrowDown' || event.key === 'ArrowRight') carry(held, back ? -1 : 1);
    else if (event.key === 'Escape') take(held.left);
    else if ((event.key === 'Enter' || event.key === ' ') && held.over !== null)
      join(held.left, shown.right[held.over]!.key);
    else return;
    event.preventDefault();
  };

  const lines = useMemo(
    () =>
      Object.entries(pairs).map(([from, to]): Line => ({
        from: `${id} left ${from}`,
        to: `${id} right ${to}`,
        look: 'own',
      })),
    [pairs, id],
  );
  return (
    <div role="group" aria-labelledby={promptId} aria-describedby={needId}>
      <p className="mb-2 text-[0.88rem] text-soft">{t('how')}</p>
      <DndContext sensors={sensors} accessibility={SILENT_DRAGGING} onDragEnd={drop}>
        <div
          ref={frame}
          className="relative grid grid-cols-[minmax(0,1.4fr)_1.75rem_minmax(0,1fr)] desk:grid-cols-[minmax(0,1fr)_6rem_minmax(0,1fr)]"
        >
          <ul aria-label={t('left')} className="space-y-2">
            {shown.left.map(({ key, text }) => {
              const partner = pairs[key];
              return (
                <li key={key} className="flex items-stretch gap-1">
                  {partner !== undefined && (
                    <button
                      type="button"
                      aria-label={t('remove', { text })}
                      onClick={() => remove(key)}
                      className="grid w-9 flex-none place-items-center rounded-control text-soft hover:bg-shade hover:text-ink"
                    >
                      <X aria-hidden className="size-4" />
                    </button>
                  )}
                  <Entry
                    id={`${id} left ${key}`}
                    name={`left/${key}`}
                    held={held?.left === key}
                    onPress={() => take(key)}
                    onKeyDown={onKey}
                    look={
                      held?.left === key
                        ? 'border-kelp outline-2 outline-kelp'
                        : partner === undefined
                          ? 'border-edge border-dashed'
                          : 'border-filled'
                    }
                  >
                    {text}
                    <span className="sr-only">
                      , {partner === undefined ? t('open') : t('joined', { partner: rightText(partner) })}
                    </span>
                  </Entry>
                </li>
              );
            })}
          </ul>
          <span />
          <ul aria-label={t('right')} className="space-y-2">
            {shown.right.map(({ key, text }, i) => (
              <li key={key}>
                <Entry
                  id={`${id} right ${key}`}
                  name={`right/${key}`}
                  onPress={() => (held ? join(held.left, key) : setHint(t('first')))}
                  look={held?.over === i ? 'border-kelp bg-wash' : 'border-edge'}
                >
                  {text}
                </Entry>
              </li>
            ))}
          </ul>
          <Lines frame={frame} lines={lines} />
        </div>
      </DndContext>
      {lines.length > 0 && (
        <ul aria-label={t('pairs')} className="sr-only">
          {shown.left.flatMap(({ key, text }) => {
            const partner = pairs[key];
            return partner === undefined
              ? []
              : [<li key={key}>{t('pair', { text, partner: rightText(partner) })}</li>];
          })}
        </ul>
      )}
      <p role="status" className="mt-1 min-h-6 text-[0.88rem] text-marigold">
        {hint}
      </p>
    </div>
  );
}
