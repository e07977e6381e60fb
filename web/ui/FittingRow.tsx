import { useLayoutEffect, useRef, useState, type ReactNode } from 'react';

interface Entry {
  readonly key: string;
  readonly shown: ReactNode;
}

interface Props {
  readonly entries: readonly Entry[];
  /** What opens the entries that do not fit. */
  readonly rest: (entries: readonly Entry[]) => ReactNode;
  readonly className: string;
}

/** How many of the children of a row fit in it, beside what opens the others; the last child of the row opens them. */
function fittingIn(row: HTMLElement): number {
  const children = [...row.children] as HTMLElement[];
  const opener = children.pop()!;
  const endOf = (child: HTMLElement) => child.offsetLeft + child.offsetWidth;
  const room = row.clientWidth;
  if (children.length === 0 || endOf(children.at(-1)!) <= room) return children.length;
  const left = room - opener.offsetWidth;
  return children.filter((child) => endOf(child) <= left).length;
}

/** One row, whatever the width and the size of text: what does not fit waits behind one more button. */
export function FittingRow({ entries, rest, className }: Props) {
  const row = useRef<HTMLDivElement>(null);
  const [fitting, setFitting] = useState(entries.length);
  useLayoutEffect(() => {
    const own = row.current!;
    const measure = () => setFitting(fittingIn(own));
    measure();
    // Also when a single entry changes its width, as with larger text.
    const sizes = new ResizeObserver(measure);
    for (const one of [own, ...own.children]) sizes.observe(one);
    return () => sizes.disconnect();
  }, [entries.length]);
  const hidden = entries.slice(fitting);
  return (
    <div ref={row} data-kit className={`relative flex items-center overflow-hidden ${className}`}>
      {entries.map(({ key, shown }, i) => (
        // Out of view it keeps its width, so that it can be measured.
        <span key={key} className={`flex-none ${i < fitting ? '' : 'invisible'}`}>
          {shown}
        </span>
      ))}
      <span
        className={`absolute inset-y-0 right-0 flex items-center ${hidden.length > 0 ? '' : 'invisible'}`}
      >
        {rest(hidden)}
      </span>
    </div>
  );
}
