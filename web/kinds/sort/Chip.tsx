import { useDraggable } from '@dnd-kit/core';
import { GripVertical, X } from 'lucide-react';
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

/** Pressed, it is in the hand; by its handle it is dragged; with one press it is out again. */
export function Chip({ id, text, name, held, onTake, onKey, removeName, onRemove }: ChipProps) {
  const { listeners, setNodeRef, setActivatorNodeRef, transform, isDragging } = useDraggable({ id });
  const style = transform ? { transform: `translate3d(${transform.x}px, ${transform.y}px, 0)` } : undefined;
  return (
    <li
      ref={setNodeRef}
      style={style}
      className={`inline-flex max-w-full items-stretch rounded-lg border bg-card ${held ? 'border-kelp outline-2 outline-kelp' : 'border-edge'} ${isDragging ? 'relative z-20 shadow-float' : ''}`}
    >
      <span
        ref={setActivatorNodeRef}
        {...listeners}
        aria-hidden
        title={t('drag', { text })}
        className="grid w-9 flex-none cursor-grab touch-none place-items-center text-soft"
      >
        <GripVertical className="size-5" />
      </span>
      <button
        type="button"
        aria-label={name}
        aria-pressed={held}
        onClick={onTake}
        onKeyDown={onKey}
        className="min-h-11 min-w-0 flex-1 rounded-lg py-1 pr-3 text-left break-words"
      >
        {text}
      </button>
      {onRemove && (
        <button
          type="button"
          aria-label={removeName}
          onClick={onRemove}
          className="grid w-11 flex-none place-items-center rounded-lg text-soft hover:text-ink"
        >
          <X aria-hidden className="size-4" />
        </button>
      )}
    </li>
  );
}
