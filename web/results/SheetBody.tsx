import { useState } from 'react';
import { Check, Minus, PlusMinus, X } from './resultIcons';
import { showMarks } from '../../core/marks';
import type {
  ResultComponent,
  ResultPart,
  ResultQuestion,
  ResultSheet,
} from '../../core/results/resultSheet';
import type { ComponentMark } from '../../core/results/componentMark';
import { verdicts, type Verdict } from '../../core/kinds/contract';
import { isNextLevel } from '../../core/results/nextLevel';
import type { Found } from '../kinds/answerProps';
import { drawsRight, readings } from '../kinds/readings';
import { DocumentView } from '../documents/DocumentView';
import { AnnotationsContext, SIDE_LINES, type Annotations } from '../annotations/annotations';
import { say } from '../words';
import { SheetHead, type SheetOf } from './SheetHead';
import { SheetIndex, lostMarks, questionId } from './SheetIndex';
import { t } from './sheetWords';

const SIGNS = {
  right: { Icon: Check, look: 'text-kelp' },
  partly: { Icon: PlusMinus, look: 'text-marigold' },
  wrong: { Icon: X, look: 'text-brick' },
  unanswered: { Icon: Minus, look: 'text-soft' },
  'follow-through': { Icon: Check, look: 'text-kelp' },
  'not marked': { Icon: Minus, look: 'text-soft' },
  withdrawn: { Icon: Minus, look: 'text-soft' },
  given: { Icon: Check, look: 'text-kelp' },
} as const;

/** In a rehearsal nobody reads; on a provisional sheet somebody does. */
const verdictWord = (verdict: ResultPart['verdict'], provisional: boolean) =>
  verdict === 'not marked' && provisional ? 'beingRead' : verdict;

/** The level that was reached, or the two that the mark lies between. */
const levelWords = ({ level, upTo }: ResultComponent): string =>
  upTo ? t('between', { from: level!.label, to: upTo.label }) : level!.label;

/** A level that people gave, or a share that the machine decided, with its reasons. */
function ComponentCard({ component: c, provisional }: { component: ResultComponent; provisional: boolean }) {
  return (
    <li className="rounded-control border border-line px-3 py-2 text-[0.88rem]">
      <p className="flex justify-between gap-2">
        <b>{c.name ? say(c.name) : t(c.verdict ?? 'byPeople')}</b>
        <span>
          {showMarks(c.hundredths)}
          <span className="text-soft">/{showMarks(c.of)}</span>
        </span>
      </p>
      <p>{c.level ? levelWords(c) : c.verdict && t(verdictWord(c.verdict, provisional))}</p>
      {c.points && (
        <ul className="text-soft">
          {c.points.map((point) => (
            <li key={point.says}>
              <span aria-hidden>{point.found ? '✓' : '–'}</span>{' '}
              <span className="sr-only">{t(point.found ? 'found' : 'notFound')}: </span>
              {point.says}
            </li>
          ))}
        </ul>
      )}
      <p className="text-soft">
        {[c.level?.says, c.upTo?.says, ...c.reasons.map(say)].filter(Boolean).join(' ')}
      </p>
      {c.otherLevels.length > 0 && (
        <div className="mt-1 text-[0.9em] text-soft">
          <p className="font-semibold">{t(isNextLevel(c) ? 'nextLevel' : 'allLevels')}</p>
          <ul>
            {c.otherLevels.map(({ label, says, hundredths }) => (
              <li key={label}>
                <b>{t('otherLevel', { label, marks: showMarks(hundredths) })}</b> {says}
              </li>
            ))}
          </ul>
        </div>
      )}
    </li>
  );
}

interface PartProps {
  readonly part: ResultPart;
  readonly several: boolean;
  readonly provisional: boolean;
}

function VerdictLine({ part, several, provisional }: PartProps) {
  const { Icon, look } = SIGNS[part.verdict];
  return (
    <p className="flex items-center gap-2">
      <Icon aria-hidden className={`size-4 flex-none ${look}`} />
      <b>{t(verdictWord(part.verdict, provisional))}</b>
      {several && part.verdict !== 'withdrawn' && (
        <span className="ml-auto">
          {showMarks(part.hundredths)} <span className="text-soft">/ {showMarks(part.of)}</span>
        </span>
      )}
    </p>
  );
}

/** Beside the answer: how it was found, why, the right answer, and what people write. */
function Findings({ part, several, provisional }: PartProps) {
  // Where a part has several components each tells its own; a level that people gave says more than a verdict.
  const [only, ...others] = part.components;
  const own = others.length === 0 && only && !only.level ? only : null;
  return (
    <div className="space-y-1 text-[0.92rem]">
      {(own?.verdict != null || part.components.some((c) => c.verdict !== null)) && (
        <VerdictLine part={part} several={several} provisional={provisional} />
      )}
      {[...part.remarks, ...(own?.reasons ?? [])].map((reason) => (
        <p key={reason.code} className="text-soft">
          {say(reason)}
        </p>
      ))}
      {part.right !== null && !drawsRight(part.kind) && (
        <div role="group" aria-label={t('rightAnswer')} className="border-l-2 border-kelp pl-3">
          <p className="text-[0.85rem] text-soft">{t('rightAnswer')}</p>
          {readings.drawGuarded(part.kind, {
            shown: part.shown,
            response: part.right,
            right: null,
            credits: [],
          })}
        </div>
      )}
      {part.modelAnswer !== null && (
        <div role="group" aria-label={t('modelAnswer')} className="border-l-2 border-kelp pl-3">
          <p className="text-[0.85rem] text-soft">{t('modelAnswer')}</p>
          <DocumentView document={part.modelAnswer} />
        </div>
      )}
      {part.explanation !== null && (
        <div role="group" aria-label={t('explanation')} className="border-l-2 border-slate pl-3">
          <p className="text-[0.85rem] text-soft">{t('explanation')}</p>
          <DocumentView document={part.explanation} />
        </div>
      )}
      {part.notes.length > 0 && (
        <ol aria-label={t('notes')} className="space-y-1.5 pb-1">
          {part.notes.map((note) => (
            <li key={note.number} className={`border-l-[3px] pl-2.5 ${SIDE_LINES[0]}`}>
              <b>{note.number}</b> {note.about && <span className="text-soft">{say(note.about)}: </span>}
              {note.text}
            </li>
          ))}
        </ol>
      )}
      {part.comments.map((comment) => (
        <figure key={comment} className="rounded-control bg-shade px-3.5 py-2.5">
          <figcaption className="text-[0.85rem] text-soft">{t('comment')}</figcaption>
          <blockquote>{comment}</blockquote>
        </figure>
      ))}
    </div>
  );
}

const isFound = (verdict: ComponentMark['verdict']): verdict is Verdict =>
  verdict !== null && verdicts.some((one) => one === verdict);

/** What was found by component, where there are several and the machine found it. */
const foundIn = ({ components }: ResultPart): Found[] =>
  components.flatMap(({ key, verdict }) => (isFound(verdict) ? [{ component: key, verdict }] : []));

/** The notes on an answer, in place; their texts stand beside it. */
const annotationsOf = ({ notes }: ResultPart): Annotations => ({
  active: null,
  notes: notes.map(({ number, anchor }) => ({ id: String(number), number, anchor, side: 0 })),
});

function Part({ part, several, provisional }: PartProps) {
  // Of what is withdrawn one word says it all.
  const cards =
    part.verdict === 'withdrawn'
      ? []
      : part.components.filter((c) => c.level !== null || part.components.length > 1);
  return (
    <section className="border-t border-line/70 py-3.5 first:border-0">
      <div className="flex gap-3">
        {several && <b className="font-serif text-kelp">{part.key}</b>}
        <div className="min-w-0 flex-1">
          <DocumentView document={part.prompt} className="text-[0.92rem] text-soft" />
          <div className="mt-2 grid gap-x-6 gap-y-3 desk:grid-cols-[minmax(0,3fr)_minmax(0,2fr)]">
            <div aria-label={t('yours')} role="group" className="min-w-0">
              <AnnotationsContext value={annotationsOf(part)}>
                {readings.drawGuarded(part.kind, {
                  shown: part.shown,
                  response: part.response,
                  right: part.right,
                  credits: foundIn(part),
                })}
              </AnnotationsContext>
            </div>
            <Findings part={part} several={several} provisional={provisional} />
          </div>
          {cards.length > 0 && (
            <ul className="mt-3 grid gap-2 desk:grid-cols-4">
              {cards.map((c, i) => (
                <ComponentCard key={i} component={c} provisional={provisional} />
              ))}
            </ul>
          )}
        </div>
      </div>
    </section>
  );
}

function QuestionCard({ question, provisional }: { question: ResultQuestion; provisional: boolean }) {
  return (
    <article
      id={questionId(question)}
      tabIndex={-1}
      className="mt-4 scroll-mt-3 break-inside-avoid outline-none rounded-card border border-line bg-card px-4 pt-4 pb-1 desk:px-6"
    >
      <h2 className="flex justify-between gap-4 font-serif text-[1.25rem] font-semibold">
        <span>{t('question', { number: question.number, title: question.title })}</span>
        <span className="font-sans whitespace-nowrap">
          {showMarks(question.hundredths)}{' '}
          <span className="font-normal text-soft">/ {showMarks(question.of)}</span>
        </span>
      </h2>
      {question.parts.map((part) => (
        <Part key={part.key} part={part} several={question.parts.length > 1} provisional={provisional} />
      ))}
      <p className="no-print pb-3">
        <a href="#questions" className="inline-flex min-h-11 items-center text-[0.9rem] text-slate underline">
          {t('backToIndex')}
        </a>
      </p>
    </article>
  );
}

/** The readings of all kinds on a sheet, fetched before it is drawn. */
export const loadReadings = (sheet: ResultSheet): Promise<void> =>
  readings.load(sheet.questions.flatMap((q) => q.parts.map((p) => p.kind)));

/** Marks by section and by question, with answers and reasons. */
export function SheetBody({
  sheet,
  provisional = false,
  sheetOf,
  remarkFiles = null,
}: {
  readonly sheet: ResultSheet;
  readonly provisional?: boolean;
  /** Where the candidate finds the sheets of single attempts. */
  readonly sheetOf?: SheetOf;
  /** Where the file is that goes with the remark on the whole script: this, and its name. */
  readonly remarkFiles?: string | null;
}) {
  const [onlyLost, setOnlyLost] = useState(false);
  const shown = onlyLost ? sheet.questions.filter(lostMarks) : sheet.questions;
  return (
    <>
      <SheetHead sheet={sheet} provisional={provisional} sheetOf={sheetOf} remarkFiles={remarkFiles} />
      {sheet.questions.length > 1 && (
        <SheetIndex questions={sheet.questions} onlyLost={onlyLost} onOnlyLost={setOnlyLost} />
      )}
      {shown.map((question) => (
        <QuestionCard key={question.number} question={question} provisional={provisional} />
      ))}
    </>
  );
}
