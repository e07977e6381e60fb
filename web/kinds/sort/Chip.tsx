import { useDraggable } from '@dnd-kit/core';
import { GripVertical, X } from 'lucide-react';
import { DRAG_HANDLE, NO_DRAG } from '../shared/dragSensors';
import { t } from './words';

interface ChipProps {
  /** Unique among all chips on the page: one may lie in several bins. */
  readonly id: string;
  readonly text: string;
  readonly name: string;
  readonly held: boolean;
  readonly onTake: () => void;
  readonly onKey: (event: React.KeyboardEvent) => void;
  readonly removeName?: string;
  readonly onRemove?: () => void;
}

/** Pressed, it is in the hand; it is dragged by its whole body; with one press it is out again. */
export function Chip({ id, text, name, held, onTake, onKey, removeName, onRemove }: ChipProps) {
  const { listeners, setNodeRef, transform, isDragging } = useDraggable({ id });
  const style = transform ? { transform: `translate3d(${transform.x}px, ${transform.y}px, 0)` } : undefined;
  return (
    <li
      ref={setNodeRef}
      {...listeners}
      style={style}
      className={`inline-flex max-w-full cursor-grab touch-manipulation items-stretch select-none [-webkit-touch-callout:none] rounded-lg border bg-card ${held ? 'border-kelp outline-2 outline-kelp' : 'border-edge'} ${isDragging ? 'relative z-20 shadow-float' : ''}`}
    >
      <span
        {...DRAG_HANDLE}
        aria-hidden
        title={t('drag', { text })}
        className="grid w-9 flex-none touch-none place-items-center text-soft"
      >
        <GripVertical className="size-5" />
      </span>
      <button
        type="button"
        aria-label={name}
        aria-pressed={held}
        onClick={onTake}
        onKeyDown={onKey}
        className="min-h-11 min-w-0 flex-1 cursor-grab rounded-lg py-1 pr-3 text-left break-words"
      >
        {text}
      </button>
      {onRemove && (
        <button
          type="button"
          aria-label={removeName}
          onClick={onRemove}
          {...NO_DRAG}
          className="grid w-11 flex-none place-items-center rounded-lg text-soft hover:text-ink"
        >
          <X aria-hidden className="size-4" />
        </button>
      )}
    </li>
  );
}
