import { useEffect, useRef, useState, type ReactNode } from 'react';
import type { TableNode } from '../../core/documents/document';
import { Inlines } from './Inlines';

/** Does what is inside need more width than there is? */
function useWide(): [React.RefObject<HTMLDivElement | null>, boolean] {
  const place = useRef<HTMLDivElement>(null);
  const [wide, setWide] = useState(false);
  useEffect(() => {
    const own = place.current;
    if (!own) return;
    const watch = new ResizeObserver(() => setWide(own.firstElementChild!.scrollWidth > own.clientWidth + 1));
    watch.observe(own);
    return () => watch.disconnect();
  }, []);
  return [place, wide];
}

/**
 * Its head stays in view while the page scrolls. One that is wider than its place scrolls by itself, so that the page
 * never does sideways; then it keeps its head within its own height.
 */
function Frame({ children }: { readonly children: ReactNode }) {
  const [place, wide] = useWide();
  return (
    <div
      ref={place}
      tabIndex={wide ? 0 : undefined}
      data-panned
      className={`mb-3 last:mb-0 ${wide ? 'max-h-[70vh] overflow-auto' : ''}`}
    >
      {children}
    </div>
  );
}

export function Table({ align, head, rows }: TableNode) {
  const style = (column: number) => ({ textAlign: align[column] ?? ('start' as const) });
  return (
    <Frame>
      <table className="w-full border-separate border-spacing-0 font-sans text-[0.92em] tabular-nums">
        <thead>
          <tr>
            {head.map((cell, i) => (
              <th
                key={i}
                dir="auto"
                scope="col"
                style={style(i)}
                className="sticky top-0 border-b border-line bg-paper px-2 py-1.5 font-semibold text-soft"
              >
                <Inlines of={cell} />
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i}>
              {row.map((cell, k) => (
                <td key={k} dir="auto" style={style(k)} className="border-b border-line/70 px-2 py-1.5">
                  <Inlines of={cell} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </Frame>
  );
}
