import { closestCenter, DndContext, type Announcements, type UniqueIdentifier } from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, GripVertical } from 'lucide-react';
import type { OrderResponse, OrderShown } from '../../../core/kinds/order/response';
import { Button } from '../../ui/Button';
import { announce } from '../../ui/announce';
import { DRAG_HANDLE, NO_DRAG, useDragSensors } from '../shared/dragSensors';
import { spoken } from './spoken';
import { words } from '../../words';
import type { AnswerProps } from '../answerProps';

const t = words('order', {
  drag: 'Drag {{text}}, or press Space and use the arrow keys',
  up: 'Move {{text}} up',
  down: 'Move {{text}} down',
  keep: 'Keep this order',
  taken: '{{text}}: selected, position {{place}} of {{all}}',
  over: '{{text}}: now at position {{place}} of {{all}}',
  put: '{{text}}: placed at position {{place}} of {{all}}',
  left: '{{text}}: not moved',
  role: 'entry that can be moved',
  how: 'Press Space to select the entry, the arrow keys to move it and Space to place it. Press Esc to cancel.',
});

interface RowProps {
  readonly id: string;
  readonly text: string;
  readonly place: number;
  readonly all: number;
  readonly settled: boolean;
  readonly onMove: (to: number) => void;
}

function Row({ id, text, place, all, settled, onMove }: RowProps) {
  const { attributes, listeners, setNodeRef, setActivatorNodeRef, transform, transition, isDragging } =
    useSortable({ id });
  const step = 'grid size-11 place-items-center rounded-control text-soft hover:text-ink disabled:opacity-30';
  return (
    <li
      ref={setNodeRef}
      {...listeners}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`flex cursor-grab touch-manipulation items-center gap-1 rounded-lg border bg-card select-none [-webkit-touch-callout:none] ${isDragging ? 'relative z-10 border-kelp shadow-float' : 'border-line'}`}
    >
      <button
        type="button"
        ref={setActivatorNodeRef}
        {...attributes}
        aria-roledescription={t('role')}
        {...DRAG_HANDLE}
        aria-label={t('drag', { text })}
        className="grid size-11 flex-none touch-none cursor-grab place-items-center rounded-control text-soft"
      >
        <GripVertical aria-hidden className="size-5" />
      </button>
      <span aria-hidden className={`w-6 font-semibold ${settled ? 'text-kelp' : 'text-soft'}`}>
        {place + 1}
      </span>
      <span className="min-w-0 flex-1 py-2">{text}</span>
      <button
        type="button"
        aria-label={t('up', { text })}
        disabled={place === 0}
        onClick={() => onMove(place - 1)}
        {...NO_DRAG}
        className={step}
      >
        <ArrowUp aria-hidden className="size-4" />
      </button>
      <button
        type="button"
        aria-label={t('down', { text })}
        disabled={place === all - 1}
        onClick={() => onMove(place + 1)}
        {...NO_DRAG}
        className={step}
      >
        <ArrowDown aria-hidden className="size-4" />
      </button>
    </li>
  );
}

/** A list put in sequence by dragging, by arrow buttons, or by keys on the handle. */
export function Answer({
  shown,
  response,
  onChange,
  promptId,
  needId,
}: AnswerProps<OrderShown, OrderResponse>) {
  const sensors = useDragSensors(sortableKeyboardCoordinates);
  const settled = response.sequence.length > 0;
  const sequence = settled ? response.sequence : shown.items.map((item) => item.key);
  const move = (from: number, to: number) => onChange({ sequence: arrayMove([...sequence], from, to) });
  const textOf = (key: string) => shown.items.find((item) => item.key === key)!.text;
  /** What is heard of an item, and the place it would have. */
  const tell = (what: 'taken' | 'over' | 'put', active: UniqueIdentifier, at: UniqueIdentifier) =>
    t(what, {
      text: textOf(String(active)),
      place: sequence.indexOf(String(at)) + 1,
      all: sequence.length,
    });
  const left = (active: UniqueIdentifier) => t('left', { text: textOf(String(active)) });
  const announcements: Announcements = {
    onDragStart: ({ active }) => tell('taken', active.id, active.id),
    // Told at once after it was taken up, too: over its own place.
    onDragOver: ({ active, over }) =>
      over ? tell(over.id === active.id ? 'taken' : 'over', active.id, over.id) : undefined,
    onDragEnd: ({ active, over }) => (over ? tell('put', active.id, over.id) : left(active.id)),
    onDragCancel: ({ active }) => left(active.id),
  };
  return (
    <DndContext
      sensors={sensors}
      accessibility={{
        announcements: spoken(announcements),
        screenReaderInstructions: { draggable: t('how') },
      }}
      collisionDetection={closestCenter}
      onDragEnd={({ active, over }) => {
        if (over && active.id !== over.id)
          move(sequence.indexOf(String(active.id)), sequence.indexOf(String(over.id)));
      }}
    >
      <SortableContext items={[...sequence]} strategy={verticalListSortingStrategy}>
        <ol aria-labelledby={promptId} aria-describedby={needId} className="space-y-1.5">
          {sequence.map((key, place) => (
            <Row
              key={key}
              id={key}
              text={textOf(key)}
              place={place}
              all={sequence.length}
              settled={settled}
              onMove={(to) => {
                move(place, to);
                announce(t('over', { text: textOf(key), place: to + 1, all: sequence.length }));
              }}
            />
          ))}
        </ol>
      </SortableContext>
      {!settled && (
        <Button className="mt-2" onClick={() => onChange({ sequence: [...sequence] })}>
          {t('keep')}
        </Button>
      )}
    </DndContext>
  );
}
