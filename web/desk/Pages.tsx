import { memo, useEffect, useRef } from 'react';
import type { Question } from '../../core/papers/candidatePaper';
import { InView } from '../media/inView';
import { Guard } from '../ui/Guard';
import { Scroller } from '../ui/Scroller';
import { useDesk } from './DeskContext';
import { Introductions } from './Introductions';
import { PartView } from './PartView';
import { marksWords } from './Rail';
import { t } from './words';

export const Parts = memo(function Parts({ question }: { question: Question }) {
  return (
    <>
      <Introductions question={question} />
      {question.parts.map((part) => (
        <Guard key={part.target}>
          <PartView part={part} several={question.parts.length > 1} />
        </Guard>
      ))}
    </>
  );
});

/** A question that has been laid out; `seen` once it was in view: until then it only waits, laid out ahead of time. */
export interface Laid {
  readonly question: Question;
  readonly seen: boolean;
}

/** Questions that share a source share a sheet, so that the source keeps its place while one moves between them. */
export interface Sheet {
  readonly key: string;
  readonly pages: readonly Laid[];
}

/**
 * What is out of view stays laid out, so that showing it costs hardly more than a painting: what waits is measured but
 * invisible, what was seen keeps its rendering.
 */
export const lookOf = (inView: boolean, seen: boolean) =>
  inView ? '' : seen ? 'pointer-events-none [content-visibility:hidden]' : 'invisible';

export interface LayoutProps {
  readonly sheet: Sheet;
  /** The question of the sheet that is in view, or would be. */
  readonly inView: Question;
  readonly narrow: boolean;
}

/** Are they shown together, one below the other? */
export const samePage = (a: Question, b: Question): boolean =>
  a === b || (a.page !== null && a.page === b.page && a.section === b.section);

/** One question of a page with several: its number, its marks and its parts; working in it makes it the one in view. */
function OnPage({ question, current }: { readonly question: Question; readonly current: boolean }) {
  const go = useDesk((s) => s.go);
  const place = useRef<HTMLElement>(null);
  useEffect(() => {
    // Whoever works in it has it before them.
    if (current && !place.current?.contains(document.activeElement))
      place.current?.scrollIntoView({ block: 'start' });
  }, [current]);
  return (
    <section
      ref={place}
      data-question={question.item}
      aria-label={t('question', { number: question.number })}
      onFocusCapture={() => !current && go(question.number - 1)}
      className={`mb-4 scroll-mt-2 border-l-3 pl-4 ${current ? 'border-kelp' : 'border-transparent'}`}
    >
      <h2 className="mb-1.5 font-serif text-[1.15rem] font-semibold">
        {t('question', { number: question.number })}{' '}
        <span className="font-sans text-[0.88rem] font-normal text-soft">{marksWords(question.marks)}</span>
      </h2>
      <Parts question={question} />
    </section>
  );
}

/** What stands on one page: a question, or several where they were authored so. */
export function PageOf({
  inView,
  pages,
  current,
}: {
  readonly inView: Question;
  readonly pages: readonly Laid[];
  readonly current: string;
}) {
  const together = pages.filter(({ question }) => samePage(question, inView));
  if (together.length === 1) return <Parts question={inView} />;
  return together.map(({ question }) => (
    <OnPage key={question.item} question={question} current={question.item === current} />
  ));
}

/** The parts of the questions of a sheet, of which one page is in view. */
export function Pages({
  sheet,
  inView,
  className,
}: Omit<LayoutProps, 'narrow'> & { readonly className: string }) {
  const first = sheet.pages.filter(
    ({ question }, i) => sheet.pages.findIndex((other) => samePage(other.question, question)) === i,
  );
  return (
    <div data-reading="question" className="relative h-full min-h-0 flex-1">
      {first.map(({ question, seen }) => {
        const shown = samePage(question, inView);
        return (
          <Scroller
            key={question.item}
            still={!shown}
            data-layer
            data-waiting={shown ? undefined : ''}
            inside={className}
            className={`absolute inset-0 [contain:strict] ${lookOf(shown, seen)}`}
          >
            <InView value={shown}>
              <PageOf inView={question} pages={sheet.pages} current={inView.item} />
            </InView>
          </Scroller>
        );
      })}
    </div>
  );
}
