import { useState } from 'react';
import { words } from '../words';
import { SIDE_LINES, SIDE_LOOKS, useAnnotations } from './annotations';

const t = words('annotatedLines', {
  choose: 'Add a note to line {{line}}. With Shift, add it to all lines since the last one',
});

/** A program line by line, with the notes on its lines; where notes can be made, the number of a line adds one. */
export function AnnotatedLines({ program }: { readonly program: string }) {
  const { notes, active, onPlace } = useAnnotations();
  const [last, setLast] = useState<number | null>(null);
  const lines = program.replace(/\n$/, '').split('\n');
  const choose = (line: number, further: boolean) => {
    const other = further && last !== null ? last : line;
    onPlace?.({ on: 'lines', from: Math.min(line, other), to: Math.max(line, other) });
    setLast(line);
  };
  /** From line to line by the arrow keys; N adds a note to the one that has the focus. */
  const onKey = (event: React.KeyboardEvent<HTMLElement>, line: number) => {
    if (event.ctrlKey || event.altKey || event.metaKey) return;
    const by = event.key === 'ArrowDown' ? 1 : event.key === 'ArrowUp' ? -1 : 0;
    if (by === 0 && event.key.toLowerCase() !== 'n') return;
    event.preventDefault();
    event.stopPropagation();
    if (by === 0) choose(line, event.shiftKey);
    else
      event.currentTarget
        .closest('pre')
        ?.querySelector<HTMLElement>(`[data-line="${line + by}"]`)
        ?.focus();
  };
  return (
    <pre
      tabIndex={0}
      className="overflow-x-auto rounded-control border border-line bg-paper px-1.5 py-3 font-mono text-[0.77em] leading-6"
    >
      {lines.map((text, i) => {
        const line = i + 1;
        const own = notes.filter(
          ({ anchor }) => anchor.on === 'lines' && anchor.from <= line && anchor.to >= line,
        );
        const top = own.find(({ id }) => id === active) ?? own.at(-1);
        const ending = own.filter(({ anchor }) => anchor.on === 'lines' && anchor.to === line);
        return (
          <code key={line} className="flex">
            {onPlace ? (
              <button
                type="button"
                aria-label={t('choose', { line })}
                {...(line === 1 ? { 'data-to-notes': '' } : {})}
                data-line={line}
                onClick={(event) => choose(line, event.shiftKey)}
                onKeyDown={(event) => onKey(event, line)}
                className="mr-1 w-8 flex-none rounded pr-1 text-right text-soft select-none hover:bg-shade hover:text-ink"
              >
                {line}
              </button>
            ) : (
              <span aria-hidden className="mr-1 w-8 flex-none pr-1 text-right text-soft select-none">
                {line}
              </span>
            )}
            <span
              data-note={top?.id}
              className={`flex-1 whitespace-pre ${top ? `border-l-4 pl-0.5 text-[#1b2733] ${SIDE_LINES[top.side]} ${SIDE_LOOKS[top.side].split(' ')[0]}` : 'pl-1.5'}`}
            >
              {text || ' '}
              {ending.map(({ id, number }) =>
                number === null ? null : (
                  <sup key={id} className="px-1 font-sans text-[0.75em] font-semibold select-none">
                    {number}
                  </sup>
                ),
              )}
            </span>
          </code>
        );
      })}
    </pre>
  );
}
