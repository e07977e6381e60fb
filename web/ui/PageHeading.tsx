import { useEffect, useLayoutEffect, useRef, type ReactNode, type RefObject } from 'react';
import { words } from '../words';

const t = words('pageTitle', { product: 'Clear Sitting' });

/** Names the window: what it shows first, then what that belongs to, then the product. */
function nameWindow(title: string, context: string | null): void {
  document.title = [title, context, t('product')].filter(Boolean).join(' – ');
}

/** For a view that draws its heading itself. */
export function usePageTitle(title: string, context: string | null = null): void {
  useLayoutEffect(() => nameWindow(title, context), [title, context]);
}

/** Whether a view was shown before: the first one of a page is read from its top. */
let shown = false;

/** After a change of view it begins at its top, and its heading has the focus: a screen reader reads on from there. */
export function useFocusOnChange(heading: RefObject<HTMLElement | null>): void {
  useEffect(() => {
    if (shown) {
      // The view before may have been read to its end.
      if (window.scrollY > 0) window.scrollTo(0, 0);
      heading.current?.focus({ preventScroll: true });
    }
    shown = true;
  }, [heading]);
}

interface Props {
  readonly children: ReactNode;
  /** What the view belongs to, as the title of the paper. */
  readonly context?: string | null;
  /** How the page is named where its heading would not do. */
  readonly title?: string;
  readonly className?: string;
}

/** The heading of a page or of a step: it names the page, and has the focus after a change of view. */
export function PageHeading({ children, context = null, title, className = '' }: Props) {
  const heading = useRef<HTMLHeadingElement>(null);
  useFocusOnChange(heading);
  useLayoutEffect(() => {
    nameWindow(title ?? heading.current?.textContent ?? '', context);
  });
  return (
    <h1 ref={heading} tabIndex={-1} className={`outline-none ${className}`}>
      {children}
    </h1>
  );
}
