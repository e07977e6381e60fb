import { MessageSquarePlus } from 'lucide-react';
import { words } from '../words';
import { SIDE_LOOKS, useAnnotations } from './annotations';

const t = words('componentNotes', { note: 'Add a note here', open: 'Note {{number}}' });

interface Props {
  readonly component: string;
  /** Of the way to a new note, where its name can say what the note is on. */
  readonly label?: string;
}

/** The notes on one cell or object, at its place; where notes are written, also the way to a new one. */
export function ComponentNotes({ component, label = t('note') }: Props) {
  const { notes, active, onActive, onPlace } = useAnnotations();
  const own = notes.filter(({ anchor }) => anchor.on === 'component' && anchor.key === component);
  return (
    <>
      {own.map(({ id, number, side }) => {
        const look = `rounded px-1 text-[0.75rem] leading-5 font-semibold text-[#1b2733] underline ${SIDE_LOOKS[side]} ${id === active ? 'outline-2 outline-kelp' : ''}`;
        if (!onActive)
          return (
            <sup key={id} data-note={id} className={look}>
              {number}
            </sup>
          );
        return (
          <button
            key={id}
            type="button"
            data-note={id}
            aria-label={t('open', { number: number ?? '' })}
            onClick={() => onActive(id)}
            className={look}
          >
            {number}
          </button>
        );
      })}
      {onPlace && (
        <button
          type="button"
          title={label}
          aria-label={label}
          onClick={() => onPlace({ on: 'component', key: component })}
          className="inline-flex self-center rounded p-0.5 text-soft hover:bg-shade hover:text-ink"
        >
          <MessageSquarePlus aria-hidden className="size-3.5" />
        </button>
      )}
    </>
  );
}
