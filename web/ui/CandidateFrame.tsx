import { useLayoutEffect, type ReactNode } from 'react';
import { words } from '../words';
import { useReading } from './reading';
import { scaleText } from './useNarrow';
import { ReadingControls } from './ReadingControls';

const t = words('frame', {
  product: 'Clear Sitting',
  for: '{{organisation}}',
  skip: 'Skip to the content',
});

/** Applies the candidate's size and spacing of text, and their colours, to the whole page. */
export function useCandidateText(): void {
  const { size, spacing, colours } = useReading();
  useLayoutEffect(() => {
    const { style, dataset } = document.documentElement;
    scaleText(size / 100);
    style.setProperty('--line-scale', String(spacing / 100));
    if (colours !== 'daylight') dataset.colours = colours;
    return () => {
      scaleText(1);
      style.removeProperty('--line-scale');
      delete dataset.colours;
    };
  }, [size, spacing, colours]);
}

/** The calm frame of everything a candidate meets before and after the desk. */
export function CandidateFrame({
  organisation,
  tools,
  children,
}: {
  organisation: string | null;
  tools?: ReactNode;
  children: ReactNode;
}) {
  useCandidateText();
  return (
    <>
      <a
        href="#content"
        className="sr-only focus:not-sr-only focus:absolute focus:z-40 focus:bg-card focus:p-3"
      >
        {t('skip')}
      </a>
      <header className="no-print flex flex-wrap items-center border-b border-line px-4 py-3 desk:gap-3 desk:px-10">
        <p className="font-serif text-[1.25rem] font-semibold whitespace-nowrap">{t('product')}</p>
        <p className="hidden text-soft desk:block">{organisation && t('for', { organisation })}</p>
        <div className="flex-1" />
        <ReadingControls brief />
        {tools}
      </header>
      <main id="content" className="px-4 py-6 desk:px-10 desk:py-10">
        {children}
      </main>
    </>
  );
}
