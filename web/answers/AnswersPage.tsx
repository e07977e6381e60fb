import { Check, X } from 'lucide-react';
import { useId, useState } from 'react';
import { Link, useNavigate, useParams } from 'react-router';
import type { AnswerCount, AnsweredPart, AnswerTable } from '../../core/answers/api';
import { Notice } from '../ui/Notice';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { useFetched } from '../staff/queries';
import { say } from '../words';
import { AcceptAnswer } from './AcceptAnswer';
import { t } from './words';

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

function Table({ path }: { path: string }) {
  const [loaded, reload] = useFetched<AnswerTable>(path);
  const [accepted, setAccepted] = useState(false);
  if (loaded.state === 'loading') return <p className="text-soft">…</p>;
  if (loaded.state === 'trouble') return <Notice tone="trouble">{loaded.message}</Notice>;
  const table = loaded.value;
  const several = table.components.length > 1;
  const done = () => {
    setAccepted(true);
    reload();
  };
  const columns = [
    { head: t('answer'), cell: (row: AnswerCount) => <span className="break-words">{row.answer}</span> },
    ...(several ? [{ head: t('where'), cell: (row: AnswerCount) => nameIn(table, row) }] : []),
    { head: t('count'), cell: (row: AnswerCount) => row.count, right: true },
    { head: t('found'), cell: (row: AnswerCount) => <Found right={row.right} /> },
    {
      head: t('accept'),
      cell: (row: AnswerCount) => row.acceptable && <AcceptAnswer path={path} row={row} onDone={done} />,
    },
  ];
  return (
    <>
      <p className="pb-2 text-soft">{t('facts', { answered: table.answered, scripts: table.scripts })}</p>
      {accepted && <Notice tone="plain">{t('working')}</Notice>}
      {table.rescoring && <p className="text-soft">{t('rescoring', table.rescoring)}</p>}
      <StaffTable
        rows={table.answers}
        keyOf={(row) => `${row.component} ${row.type} ${row.answer}`}
        empty={t('nothing')}
        columns={columns}
      />
    </>
  );
}

/** What was answered, question by question: the distinct answers with their counts, the frequent ones first. */
export function AnswersPage() {
  const { id = '', item = '', part = '' } = useParams();
  const go = useNavigate();
  const selectId = useId();
  const [loaded] = useFetched<AnsweredPart[]>(`/rounds/${id}/answers`);
  const nameOf = ({ itemNumber: number, title, part: letter, target }: AnsweredPart, all: AnsweredPart[]) => {
    const several = all.some((one) => one.itemNumber === number && one.target !== target);
    return several ? t('partOf', { number, part: letter, title }) : t('part', { number, title });
  };
  return (
    <StaffPage
      title={t('title')}
      aside={
        <Link to="/staff/sign-off" className="text-slate underline underline-offset-4">
          {t('back')}
        </Link>
      }
      loaded={loaded}
    >
      {(parts) => {
        const chosen = item ? `${item}/${part}` : (parts[0]?.target ?? '');
        return (
          <>
            <div className="mb-3 flex flex-wrap items-center gap-3">
              <label htmlFor={selectId} className="font-semibold">
                {t('choose')}
              </label>
              <select
                id={selectId}
                value={chosen}
                onChange={(event) => void go(`/staff/rounds/${id}/answers/${event.target.value}`)}
                className="min-h-10 rounded-control border border-edge bg-card px-3"
              >
                {parts.map((one) => (
                  <option key={one.target} value={one.target}>
                    {nameOf(one, parts)}
                  </option>
                ))}
              </select>
            </div>
            {chosen && <Table key={chosen} path={`/rounds/${id}/answers/${chosen}`} />}
          </>
        );
      }}
    </StaffPage>
  );
}
