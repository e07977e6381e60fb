import { Check, X } from 'lucide-react';
import { useId } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { AnswerCount, AnsweredPart, AnswerTable } from '../../core/answers/api';
import type { CorrectionPage } from '../../core/corrections/api';
import { CorrectionDialog } from '../corrections/CorrectionDialog';
import { CorrectionRecord } from '../corrections/CorrectionRecord';
import { CorrectPart } from '../corrections/CorrectPart';
import { t as corrections } from '../corrections/words';
import { Notice } from '../ui/Notice';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { LIST_MS, useFetched } from '../staff/queries';
import { say } from '../words';
import { nameOfPart } from './partName';
import { PartsTable } from './PartsTable';
import { t } from './words';

/** How often the page asks while scripts are looked at again; ms. */
const WORKING_MS = 1_000;

function Found({ right }: { right: boolean | null }) {
  if (right === null) return <span className="text-soft">–</span>;
  const Icon = right ? Check : X;
  return (
    <span className={`inline-flex items-center gap-1.5 ${right ? 'text-kelp' : ''}`}>
      <Icon aria-hidden className="size-4" /> {t(right ? 'right' : 'wrong')}
    </span>
  );
}

const nameIn = (table: AnswerTable, { component }: AnswerCount): string => {
  const name = table.components.find((one) => one.key === component)?.name;
  return name ? say(name) : '';
};

const LIMITS = ['too-slow', 'too-much-memory', 'too-much-output'] as const;

/** What was answered; of programs what they came to in a case, and which scripts, where they are few. */
function Answer({ row: { of, answer, scripts, right } }: { readonly row: AnswerCount }) {
  const limit = of === undefined ? undefined : LIMITS.find((one) => one === answer);
  return (
    <span className="break-words">
      {of !== undefined && <span className="text-soft">{of}: </span>}
      {limit ? t(limit) : answer}
      {right === false && scripts.length > 0 && (
        <span className="block text-[0.85rem] text-soft">{t('scripts', { codes: scripts.join(', ') })}</span>
      )}
    </span>
  );
}

interface AnswersProps {
  readonly table: AnswerTable;
  /** Of the part's corrections, under the API. */
  readonly path: string;
  readonly onDone: () => void;
}

function Answers({ table, path, onDone }: AnswersProps) {
  const several = table.components.length > 1;
  const share = (row: AnswerCount) =>
    table.answered === 0 ? '–' : `${Math.round((100 * row.count) / table.answered)} %`;
  const columns = [
    { head: t('answer'), cell: (row: AnswerCount) => <Answer row={row} /> },
    ...(several ? [{ head: t('where'), cell: (row: AnswerCount) => nameIn(table, row) }] : []),
    { head: t('count'), cell: (row: AnswerCount) => row.count, right: true },
    { head: t('share'), cell: share, right: true },
    { head: t('found'), cell: (row: AnswerCount) => <Found right={row.right} /> },
    {
      head: t('accept'),
      cell: ({ acceptable, component, answer }: AnswerCount) =>
        acceptable && (
          <CorrectionDialog
            act={corrections('accept')}
            actLabel={corrections('acceptOf', { answer })}
            title={corrections('acceptTitle', { answer })}
            text={corrections('acceptText')}
            path={path}
            change={{ type: 'accept', component, answer }}
            onDone={onDone}
          />
        ),
    },
  ];
  return (
    <section aria-label={t('answers')}>
      <h2 className="font-serif text-[1.2rem] font-semibold">{t('answers')}</h2>
      <p className="pb-2 text-soft">{t('facts', { answered: table.answered, scripts: table.scripts })}</p>
      <StaffTable
        rows={table.answers}
        keyOf={(row) => `${row.component} ${row.type} ${row.of ?? ''} ${row.answer}`}
        empty={t('nothing')}
        columns={columns}
      />
    </section>
  );
}

function Part({ round, target }: { readonly round: string; readonly target: string }) {
  const path = `/rounds/${round}/corrections/${target}`;
  const [page, reloadPage] = useFetched<CorrectionPage>(path, undefined, (shown) =>
    shown?.rows.some((row) => row.finishedAt === null) ? WORKING_MS : LIST_MS,
  );
  const finished =
    page.state === 'here' ? page.value.rows.filter((row) => row.finishedAt !== null).length : 0;
  // What was answered counts otherwise once a correction is finished.
  const answersPath = `/rounds/${round}/answers/${target}`;
  const [table, reloadTable] = useFetched<AnswerTable>(`${answersPath}?after=${finished}`);
  if (page.state === 'loading') return <p className="text-soft">…</p>;
  if (page.state === 'trouble') return <Notice tone="trouble">{page.message}</Notice>;
  const done = () => {
    reloadPage();
    reloadTable();
  };
  return (
    <div className="space-y-6">
      {/* Counted anew beside a correction that somebody is writing: their dialog stays open. */}
      {table.state === 'here' && <Answers table={table.value} path={path} onDone={done} />}
      {table.state === 'loading' && <p className="text-soft">…</p>}
      {table.state === 'trouble' && <Notice tone="trouble">{table.message}</Notice>}
      <CorrectPart path={path} page={page.value} onDone={done} />
      <CorrectionRecord path={path} rows={page.value.rows} onDone={done} />
    </div>
  );
}

/** What was answered to a part: the distinct answers with their counts, the frequent ones first; and its corrections. */
function PartPage({ round, target }: { readonly round: string; readonly target: string }) {
  const go = useNavigate();
  const selectId = useId();
  const [loaded] = useFetched<AnsweredPart[]>(`/rounds/${round}/answers`);
  return (
    <StaffPage
      title={t('title')}
      aside={
        <Link to={`/staff/rounds/${round}/answers`} className="text-slate underline underline-offset-4">
          {t('backToAll')}
        </Link>
      }
      loaded={loaded}
    >
      {(parts) => (
        <>
          <div className="mb-3 flex flex-wrap items-center gap-3">
            <label htmlFor={selectId} className="font-semibold">
              {t('choose')}
            </label>
            <select
              id={selectId}
              value={target}
              onChange={(event) => void go(`/staff/rounds/${round}/answers/${event.target.value}`)}
              className="min-h-10 max-w-full rounded-control border border-edge bg-card px-3"
            >
              {parts.map((one) => (
                <option key={one.target} value={one.target}>
                  {nameOfPart(one, parts)}
                </option>
              ))}
            </select>
          </div>
          <Part key={target} round={round} target={target} />
        </>
      )}
    </StaffPage>
  );
}

/** The questions of a round, or one part of one with what was answered and corrected. */
export function AnswersPage() {
  const { id = '', item = '', part = '' } = useParams();
  return item ? <PartPage round={id} target={`${item}/${part}`} /> : <PartsTable round={id} />;
}
