import { showMarks } from '../../core/marks';
import type { ResultQuestion } from '../../core/results/resultSheet';
import { StickyNote } from './resultIcons';
import { t } from './sheetWords';

export const questionId = ({ number }: Pick<ResultQuestion, 'number'>): string => `question-${number}`;

export const lostMarks = ({ hundredths, of }: ResultQuestion): boolean => hundredths < of;

/** What people wrote on a question: notes and comments. */
const remarksOn = ({ parts }: ResultQuestion): number =>
  parts.reduce((sum, { notes, comments }) => sum + notes.length + comments.length, 0);

interface Props {
  readonly questions: readonly ResultQuestion[];
  readonly onlyLost: boolean;
  readonly onOnlyLost: (only: boolean) => void;
}

/** The questions of a sheet at its head, each with its marks and what was written on it, and the way to it. */
export function SheetIndex({ questions, onlyLost, onOnlyLost }: Props) {
  const shown = onlyLost ? questions.filter(lostMarks) : questions;
  return (
    <nav
      id="questions"
      aria-label={t('index')}
      className="no-print mt-4 scroll-mt-3 rounded-card border border-line bg-card px-4 py-3 desk:px-6"
    >
      <div className="flex flex-wrap items-center justify-between gap-x-4">
        <h2 className="font-semibold">{t('index')}</h2>
        <label className="inline-flex min-h-11 items-center gap-2 text-[0.92rem]">
          <input
            type="checkbox"
            checked={onlyLost}
            onChange={(event) => onOnlyLost(event.target.checked)}
            className="size-4.5"
          />
          {t('onlyLost')}
        </label>
      </div>
      {shown.length === 0 && <p className="text-soft">{t('nothingLost')}</p>}
      <ul className="grid gap-x-8 desk:grid-cols-2">
        {shown.map((question) => {
          const remarks = remarksOn(question);
          return (
            <li key={question.number} className="border-b border-line/70">
              <a
                href={`#${questionId(question)}`}
                // The address stays the candidate's own: it may be a link that opens elsewhere.
                onClick={(event) => {
                  event.preventDefault();
                  const card = document.getElementById(questionId(question));
                  card?.scrollIntoView();
                  card?.focus({ preventScroll: true });
                }}
                className="flex min-h-11 items-center gap-3 hover:text-slate"
              >
                <span className="min-w-0 flex-1 py-1">
                  {t('indexLine', { number: question.number, title: question.title })}
                </span>
                {remarks > 0 && (
                  <span className="inline-flex flex-none items-center gap-1 text-[0.85rem] text-slate">
                    <StickyNote aria-hidden className="size-4" /> {t('hasNotes', { count: remarks })}
                  </span>
                )}
                <span className="flex-none whitespace-nowrap">
                  <b>{showMarks(question.hundredths)}</b>{' '}
                  <span className="text-soft">/ {showMarks(question.of)}</span>
                </span>
              </a>
            </li>
          );
        })}
      </ul>
    </nav>
  );
}
