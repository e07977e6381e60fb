import { ChevronDown } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { words } from '../words';

const t = words('scroller', { more: 'More below' });

/** Less than this below the edge is no more than a margin. */
const MARGIN_PX = 24;
/** A press on the cue goes on by this share of what is in view, so that the last line seen stays in view. */
const STEP = 0.8;

/** Whether the end of what scrolls lies further below than a margin. */
function useMoreBelow() {
  const scroller = useRef<HTMLDivElement>(null);
  const end = useRef<HTMLDivElement>(null);
  const [more, setMore] = useState(false);
  useEffect(() => {
    const watch = new IntersectionObserver(([entry]) => setMore(!entry!.isIntersecting), {
      root: scroller.current,
      rootMargin: `0px 0px ${MARGIN_PX}px 0px`,
    });
    watch.observe(end.current!);
    return () => watch.disconnect();
  }, []);
  return { scroller, end, more };
}

interface Props extends React.ComponentProps<'div'> {
  /** Classes of what is inside: its padding, within which nothing could stick to the edge. */
  readonly inside: string;
  /** Only what is in view scrolls: what cannot be reached is not scrolled by keys either. */
  readonly still?: boolean;
}

/** Scrolls, and tells where more lies below: not everybody sees a bar at the edge. */
export function Scroller({ className = '', inside, still = false, children, ...rest }: Props) {
  const { scroller, end, more } = useMoreBelow();
  return (
    <div
      ref={scroller}
      data-scroller
      className={`${still ? 'overflow-hidden' : 'overflow-y-auto'} ${className}`}
      {...rest}
    >
      <div className={inside}>{children}</div>
      <div ref={end} aria-hidden className="h-px" />
      <div className={`pointer-events-none sticky bottom-0 z-[6] h-0 ${more && !still ? '' : 'invisible'}`}>
        <button
          type="button"
          // For the pointer: keys and screen readers go on by themselves.
          aria-hidden
          tabIndex={-1}
          onClick={() => {
            const own = scroller.current!;
            own.scrollBy({ top: own.clientHeight * STEP });
          }}
          className="pointer-events-auto absolute bottom-1 left-1/2 inline-flex min-h-8 -translate-x-1/2 items-center gap-1 rounded-full border border-line bg-card px-3 font-sans text-[0.8rem] whitespace-nowrap text-slate shadow-float"
        >
          {t('more')} <ChevronDown className="size-4" />
        </button>
      </div>
    </div>
  );
}
