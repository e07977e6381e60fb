import { memo } from 'react';
import type { Question } from '../../core/papers/candidatePaper';
import { PartView } from './PartView';

export const Parts = memo(function Parts({ question }: { question: Question }) {
  return question.parts.map((part) => (
    <PartView key={part.target} part={part} several={question.parts.length > 1} />
  ));
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

/** The parts of the questions of a sheet, of which one is in view. */
export function Pages({
  sheet,
  inView,
  className,
}: Omit<LayoutProps, 'narrow'> & { readonly className: string }) {
  return (
    <div className="relative h-full min-h-0 flex-1">
      {sheet.pages.map(({ question, seen }) => (
        <div
          key={question.item}
          // Only what is in view scrolls: the others cannot be reached, by keys either.
          className={`absolute inset-0 [contain:strict] ${className} ${question.item === inView.item ? 'overflow-y-auto' : 'overflow-hidden'} ${lookOf(question.item === inView.item, seen)}`}
        >
          <Parts question={question} />
        </div>
      ))}
    </div>
  );
}
