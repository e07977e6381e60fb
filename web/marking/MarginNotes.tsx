import { Trash2 } from 'lucide-react';
import { useEffect, useLayoutEffect, useRef, useState, type RefObject } from 'react';
import type { Component } from '../../core/kinds/contract';
import { NOTE_MOST, type MarginNote } from '../../core/marking/marginNote';
import { SIDE_LINES } from '../annotations/annotations';
import { nameOf } from './RubricPanel';
import { t } from './words';

interface Places {
  readonly tops: Readonly<Record<string, number>>;
  readonly height: number;
}

const GAP = 10;

/** Puts each note beside what it is about, below the one before it where there is no room. */
export function useNotePlaces(
  ids: readonly string[],
  answer: RefObject<HTMLElement | null>,
  column: RefObject<HTMLElement | null>,
): Places {
  const [places, setPlaces] = useState<Places>({ tops: {}, height: 0 });
  const key = ids.join(' ');
  useLayoutEffect(() => {
    const measure = () => {
      const [own, beside] = [answer.current, column.current];
      if (!own || !beside) return;
      const from = beside.getBoundingClientRect().top;
      const wanted = ids
        .map((id) => {
          const mark = own.querySelector(`[data-note="${id}"]`);
          return { id, top: mark ? mark.getBoundingClientRect().top - from : 0 };
        })
        .sort((a, b) => a.top - b.top);
      let free = 0;
      const tops: Record<string, number> = {};
      for (const { id, top } of wanted) {
        const card = beside.querySelector<HTMLElement>(`[data-card="${id}"]`);
        tops[id] = Math.max(0, top, free);
        free = tops[id] + (card?.offsetHeight ?? 40) + GAP;
      }
      setPlaces((before) =>
        before.height === free && ids.every((id) => before.tops[id] === tops[id])
          ? before
          : { tops, height: free },
      );
    };
    measure();
    if (typeof ResizeObserver === 'undefined') return;
    const observer = new ResizeObserver(measure);
    for (const one of [answer.current, column.current]) if (one) observer.observe(one);
    return () => observer.disconnect();
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [key, answer, column]);
  return places;
}

interface CardProps {
  readonly note: MarginNote;
  readonly number: number;
  readonly components: readonly Component[];
  readonly active: boolean;
  readonly top: number;
  readonly onActive: () => void;
  readonly onChange: (note: MarginNote) => void;
  readonly onRemove: () => void;
  readonly onLeave: () => void;
}

function Card({ note, number, components, active, top, onActive, onChange, onRemove, onLeave }: CardProps) {
  const box = useRef<HTMLTextAreaElement>(null);
  useEffect(() => {
    if (active && note.text === '') box.current?.focus();
    // Only as it becomes active: who goes on writing is not disturbed.
    // oxlint-disable-next-line react-hooks/exhaustive-deps
  }, [active]);
  const named = components.length > 1;
  return (
    <li
      data-card={note.id}
      style={{ top }}
      onFocus={onActive}
      className={`absolute inset-x-0 border-l-[3px] bg-paper py-0.5 pl-2.5 ${SIDE_LINES[0]} ${active ? 'z-10' : ''}`}
    >
      <div className="flex items-center gap-1">
        <b className="text-[0.8rem]">{number}</b>
        {named && (
          <select
            value={note.component ?? ''}
            aria-label={t('noteAbout', { number })}
            onChange={(event) => onChange({ ...note, component: event.target.value || null })}
            className="min-w-0 flex-1 rounded border border-transparent bg-transparent py-0.5 text-[0.85rem] font-semibold hover:border-line"
          >
            <option value="">{t('noteOnNothing')}</option>
            {components.map((component) => (
              <option key={component.key} value={component.key}>
                {nameOf(component)}
              </option>
            ))}
          </select>
        )}
        <button
          type="button"
          aria-label={t('removeNote', { number })}
          onClick={onRemove}
          className="rounded p-1 text-soft hover:bg-shade hover:text-ink"
        >
          <Trash2 aria-hidden className="size-3.5" />
        </button>
      </div>
      <textarea
        ref={box}
        rows={2}
        value={note.text}
        maxLength={NOTE_MOST}
        aria-label={t('noteText', { number })}
        placeholder={t('notePlaceholder')}
        onChange={(event) => onChange({ ...note, text: event.target.value })}
        onKeyDown={(event) => {
          if (event.key !== 'Escape' && !(event.key === 'Enter' && !event.shiftKey)) return;
          event.preventDefault();
          event.stopPropagation();
          onLeave();
        }}
        className="field-sizing-content w-full resize-none rounded border border-transparent bg-transparent px-1 py-0.5 text-[0.88rem] leading-5 hover:border-line focus:border-edge focus:bg-card"
      />
    </li>
  );
}

interface Props {
  readonly notes: readonly MarginNote[];
  readonly components: readonly Component[];
  readonly active: string | null;
  readonly answer: RefObject<HTMLElement | null>;
  readonly onActive: (id: string | null) => void;
  readonly onChange: (notes: readonly MarginNote[]) => void;
}

/** The margin: each note beside what it is about. */
export function MarginNotes({ notes, components, active, answer, onActive, onChange }: Props) {
  const column = useRef<HTMLUListElement>(null);
  const { tops, height } = useNotePlaces(
    notes.map(({ id }) => id),
    answer,
    column,
  );
  const replace = (id: string, next: MarginNote | null) =>
    onChange(notes.flatMap((one) => (one.id !== id ? [one] : next ? [next] : [])));
  return (
    <div className="w-[8rem] flex-none min-[1280px]:w-[8.75rem] min-[1440px]:w-[13.5rem]">
      <ul ref={column} aria-label={t('notes')} className="relative" style={{ minHeight: height }}>
        {notes.map((note, i) => (
          <Card
            key={note.id}
            note={note}
            number={i + 1}
            components={components}
            active={note.id === active}
            top={tops[note.id] ?? 0}
            onActive={() => onActive(note.id)}
            onChange={(next) => replace(note.id, next)}
            onRemove={() => replace(note.id, null)}
            onLeave={() => {
              // A note of no words is none.
              if (note.text.trim() === '') replace(note.id, null);
              onActive(null);
              // Keys go to the rubric again, also where the answer itself can have no focus.
              if (document.activeElement instanceof HTMLElement) document.activeElement.blur();
              document.querySelector<HTMLElement>('[data-annotated]')?.focus();
            }}
          />
        ))}
      </ul>
      {notes.length === 0 && <p className="text-[0.82rem] text-soft">{t('noteHint')}</p>}
    </div>
  );
}
