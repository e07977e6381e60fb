import { useLayoutEffect, useState, type RefObject } from 'react';

/** A line between two entries, by the ids of their elements. */
export interface Line {
  readonly from: string;
  readonly to: string;
  readonly look: 'own' | 'right' | 'wrong';
}

interface Drawn extends Line {
  readonly path: string;
}

const LOOKS = {
  own: { className: 'stroke-filled', strokeDasharray: undefined },
  right: { className: 'stroke-kelp', strokeDasharray: '6 4' },
  wrong: { className: 'stroke-brick', strokeDasharray: undefined },
} as const;

function pathBetween(frame: DOMRect, from: DOMRect, to: DOMRect): string {
  const [x1, y1] = [from.right - frame.left, from.top + from.height / 2 - frame.top];
  const [x2, y2] = [to.left - frame.left, to.top + to.height / 2 - frame.top];
  const bend = (x2 - x1) / 2;
  return `M ${x1} ${y1} C ${x1 + bend} ${y1}, ${x2 - bend} ${y2}, ${x2} ${y2}`;
}

/** Lines that stay true at every width: measured again whenever the frame changes its size. */
export function Lines({
  frame,
  lines,
}: {
  readonly frame: RefObject<HTMLElement | null>;
  readonly lines: readonly Line[];
}) {
  const [drawn, setDrawn] = useState<readonly Drawn[]>([]);
  useLayoutEffect(() => {
    const own = frame.current;
    if (!own) return;
    const measure = () => {
      const box = own.getBoundingClientRect();
      setDrawn(
        lines.flatMap((line) => {
          const [from, to] = [line.from, line.to].map((id) => document.getElementById(id));
          if (!from || !to) return [];
          return [
            { ...line, path: pathBetween(box, from.getBoundingClientRect(), to.getBoundingClientRect()) },
          ];
        }),
      );
    };
    measure();
    const watch = new ResizeObserver(measure);
    watch.observe(own);
    for (const entry of own.querySelectorAll('[id]')) watch.observe(entry);
    return () => watch.disconnect();
  }, [frame, lines]);
  return (
    <svg aria-hidden className="pointer-events-none absolute inset-0 size-full overflow-visible">
      {drawn.map(({ from, to, path, look }) => (
        <path key={`${from} ${to} ${look}`} d={path} fill="none" strokeWidth={2.5} {...LOOKS[look]} />
      ))}
    </svg>
  );
}
