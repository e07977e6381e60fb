import { Link } from 'react-router';
import { showMarks } from '../../core/marks';
import type { ResultSheet } from '../../core/results/resultSheet';
import { showDay, showList } from '../ui/times';
import { say } from '../words';
import { FileDown } from './resultIcons';
import { t } from './sheetWords';

function Total({ sheet }: { sheet: ResultSheet }) {
  const { band } = sheet;
  return (
    <section className="rounded-card border border-line bg-card px-5 py-4">
      <p>
        <b className="text-[2.6rem] leading-none">{showMarks(sheet.hundredths)}</b>{' '}
        <span className="text-soft">{t('of', { all: showMarks(sheet.of) })}</span>
      </p>
      {sheet.remarks.map((one) => (
        <p key={one.code} className="mt-2 text-[0.9rem]">
          {say(one)}
        </p>
      ))}
      {sheet.open > 0 && (
        <p className="mt-2 text-[0.9rem] text-marigold">{t('open', { marks: showMarks(sheet.open) })}</p>
      )}
      {band && (
        <p className="mt-2 text-[0.9rem]">
          {t('band')} <b>{band.title}</b>
          <span className="block text-soft">
            {band.next === null
              ? t('bandFrom', { from: showMarks(band.from) })
              : t('bandNext', { from: showMarks(band.from), next: showMarks(band.next) })}
          </span>
        </p>
      )}
    </section>
  );
}

/** Bars as long as a section is worth, filled as far as it went: marks as lengths, to one scale. */
function Sections({ sheet }: { sheet: ResultSheet }) {
  const most = Math.max(1, ...sheet.sections.map((s) => s.of));
  return (
    <section aria-label={t('sections')} className="flex flex-col justify-center gap-3">
      {sheet.sections.map((s) => (
        <div key={s.key} className="grid items-center gap-x-3 desk:grid-cols-[1.4rem_10.5rem_1fr]">
          <b className="hidden desk:block">{s.key}</b>
          <span>{s.title}</span>
          <span className="flex items-center gap-2.5">
            <span
              aria-hidden
              className="h-5 overflow-hidden rounded border border-edge bg-card"
              style={{ width: `${(75 * s.of) / most}%` }}
            >
              <span
                className="block h-full bg-filled"
                style={{ width: `${s.of === 0 ? 0 : (100 * Math.max(0, s.hundredths)) / s.of}%` }}
              />
            </span>
            <span className="whitespace-nowrap">
              {showMarks(s.hundredths)} <span className="text-soft">/ {showMarks(s.of)}</span>
            </span>
          </span>
        </div>
      ))}
    </section>
  );
}

/** Where the sheet of one attempt is. */
export type SheetOf = (attempt: number) => string;

/** Several attempts side by side, and which of them counts. */
function Attempts({ sheet, sheetOf }: { sheet: ResultSheet; sheetOf: SheetOf | undefined }) {
  if (sheet.attempts.length === 0) return null;
  return (
    <section aria-label={t('attempts')} className="mt-4">
      <ul className="flex flex-wrap gap-3">
        {sheet.attempts.map((one) => (
          <li
            key={one.attempt}
            className={`rounded-control border bg-card px-3.5 py-2 ${one.counts ? 'border-kelp' : 'border-line'}`}
          >
            {t('attempt', { number: one.attempt, day: showDay(one.satAt, sheet.timeZone) })}{' '}
            <b>{showMarks(one.hundredths)}</b>
            {one.counts && <span className="ml-2 font-semibold text-kelp">{t('counts')}</span>}
            {sheetOf && (
              <Link to={sheetOf(one.attempt)} className="ml-2 text-slate underline">
                {t('attemptSheet', { number: one.attempt })}
              </Link>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Changes({ sheet }: { sheet: ResultSheet }) {
  if (sheet.changes.length === 0) return null;
  return (
    <section aria-label={t('changes')} className="mt-4 rounded-card border border-line bg-card px-5 py-3">
      <h2 className="font-semibold">{t('changes')}</h2>
      <ul>
        {sheet.changes.map((one, i) => (
          <li key={i}>
            {t(one.about === 'total' ? 'changeTotal' : 'change', {
              day: showDay(one.at, sheet.timeZone),
              number: one.question,
              before: showMarks(one.before),
              after: showMarks(one.after),
              reason: say(one.reason),
            })}
          </li>
        ))}
      </ul>
    </section>
  );
}

/** What is said of the script as a whole, and the file that goes with it. */
function Overall({ sheet, files }: { readonly sheet: ResultSheet; readonly files: string | null }) {
  const { comment, file } = sheet;
  if (comment === null && file === null) return null;
  const address = file && files !== null ? `${files}/${file.hash}` : null;
  return (
    <figure className="mt-4 rounded-card bg-shade px-5 py-3">
      <figcaption className="text-[0.85rem] text-soft">{t('overall')}</figcaption>
      {comment !== null && <blockquote className="whitespace-pre-wrap">{comment}</blockquote>}
      {address && file!.type !== 'application/pdf' && (
        <img
          src={address}
          alt={t('overallPicture')}
          className="mt-2 max-h-[28rem] max-w-full rounded-control"
        />
      )}
      {address && file!.type === 'application/pdf' && (
        <a
          href={address}
          download
          className="mt-2 inline-flex min-h-11 items-center gap-2 text-slate underline underline-offset-4"
        >
          <FileDown aria-hidden className="size-4" /> {t('overallFile')}
        </a>
      )}
    </figure>
  );
}

/** A result that may change says so, who is still reading, and when it is final. */
function Provisional({ sheet }: { readonly sheet: ResultSheet }) {
  const read = sheet.questions.filter((question) =>
    question.parts.some((part) => part.components.some((c) => c.verdict === 'not marked')),
  );
  return (
    <section
      aria-label={t('provisionalTitle')}
      className="mb-4 rounded-card border border-marigold-line bg-marigold-wash px-5 py-3 text-ink"
    >
      <h2 className="font-semibold">{t('provisionalTitle')}</h2>
      <p>{t('provisionalText', { day: showDay(sheet.finalBy, sheet.timeZone) })}</p>
      {read.length > 0 && <p>{t('provisionalReads', { list: showList(read.map(({ title }) => title)) })}</p>}
    </section>
  );
}

interface Props {
  readonly sheet: ResultSheet;
  readonly provisional: boolean;
  readonly sheetOf: SheetOf | undefined;
  readonly remarkFiles: string | null;
}

/** What is told of the whole, before the questions. */
export function SheetHead({ sheet, provisional, sheetOf, remarkFiles }: Props) {
  return (
    <>
      {provisional && sheet.finalBy > 0 && <Provisional sheet={sheet} />}
      <div className="grid gap-6 desk:grid-cols-[220px_1fr]">
        <Total sheet={sheet} />
        {sheet.sections.length > 0 && <Sections sheet={sheet} />}
      </div>
      {sheet.detail === 'sections' && <p className="mt-4 text-soft">{say({ code: 'sheet.sectionsOnly' })}</p>}
      <Overall sheet={sheet} files={remarkFiles} />
      {sheet.rightLater && <p className="mt-4 text-soft">{say({ code: 'sheet.rightLater' })}</p>}
      <Attempts sheet={sheet} sheetOf={sheetOf} />
      <Changes sheet={sheet} />
    </>
  );
}
