import { useQueryClient } from '@tanstack/react-query';
import { useState } from 'react';
import { Link, useParams } from 'react-router';
import {
  nameChoices,
  peopleColumns,
  type ColumnMap,
  type NameChoice,
  type PeopleReport,
} from '../../core/people/importApi';
import { postBytes } from '../api/client';
import '../staff/importWords';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { useAction } from '../ui/useAsync';
import { say } from '../words';
import { t } from './words';

const FIELD = 'mt-1 block w-full rounded-control border border-edge bg-card px-3 py-2';

interface Brought {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly report: PeopleReport;
}

const queryOf = (columns: ColumnMap | null, names: NameChoice | null = null): string => {
  if (!columns) return '';
  const chosen = peopleColumns.flatMap((name) =>
    columns[name] === null ? [] : [[name, String(columns[name])]],
  );
  return `?${new URLSearchParams(names === null ? chosen : [...chosen, ['names', names]]).toString()}`;
};

/** Which column of the file holds what. */
function Columns({
  report: { headings, columns },
  onChange,
}: {
  readonly report: PeopleReport;
  readonly onChange: (columns: ColumnMap) => void;
}) {
  return (
    <fieldset className="mb-4 rounded-card border border-line bg-card p-4">
      <legend className="px-1 font-semibold">{t('peopleColumns')}</legend>
      <div className="grid gap-3 desk:grid-cols-3">
        {peopleColumns.map((name) => (
          <label key={name} className="block">
            {t(`column ${name}`)}
            <select
              className={FIELD}
              value={columns[name] ?? ''}
              onChange={({ target: { value } }) =>
                onChange({ ...columns, [name]: value === '' ? null : Number(value) })
              }
            >
              <option value="">{t('noColumn')}</option>
              {headings.map((heading, i) => (
                <option key={i} value={i}>
                  {heading}
                </option>
              ))}
            </select>
          </label>
        ))}
      </div>
    </fieldset>
  );
}

function Rows({ report }: { readonly report: PeopleReport }) {
  return (
    <StaffTable
      rows={report.rows.slice(0, 500)}
      keyOf={(row) => row.line}
      empty={t('noInvited')}
      columns={[
        { head: t('line'), cell: (row) => row.line, right: true },
        {
          head: t('name'),
          cell: (row) => (
            <>
              {row.name}
              {row.knownAs !== null && (
                <p className="text-[0.9rem] text-marigold">{t('knownAs', { name: row.knownAs })}</p>
              )}
            </>
          ),
        },
        { head: t('email'), cell: (row) => row.email },
        {
          head: t('extraTime'),
          cell: (row) => (row.extraPercent ? `${row.extraPercent} %` : ''),
          right: true,
        },
        {
          head: t('state'),
          cell: (row) => (
            <>
              <Pill tone={row.state === 'wrong' ? 'care' : row.state === 'same' ? 'plain' : 'good'}>
                {t(`person ${row.state}`)}
              </Pill>
              {row.errors.map((error) => (
                <p key={error.code} className="mt-1 text-[0.9rem] text-brick">
                  {say(error)}
                </p>
              ))}
            </>
          ),
        },
      ]}
    />
  );
}

/** Addresses that are known under another name: which name holds is asked, never decided silently. */
function Names({
  count,
  chosen,
  onChoose,
}: {
  readonly count: number;
  readonly chosen: NameChoice | null;
  readonly onChoose: (names: NameChoice) => void;
}) {
  return (
    <fieldset className="mb-4 rounded-card border border-line bg-card p-4">
      <legend className="px-1 font-semibold">{t('namesDiffer', { count })}</legend>
      {nameChoices.map((one) => (
        <label key={one} className="flex min-h-10 items-center gap-2">
          <input type="radio" name="names" checked={chosen === one} onChange={() => onChoose(one)} />
          {t(`names ${one}`)}
        </label>
      ))}
    </fieldset>
  );
}

/** People from a file or pasted rows: looked through first, then invited. */
export function ImportPeople() {
  const { id = '' } = useParams();
  const [pasted, setPasted] = useState('');
  const [brought, setBrought] = useState<Brought | null>(null);
  const [names, setNames] = useState<NameChoice | null>(null);
  const { busy, trouble, run } = useAction();
  const client = useQueryClient();
  const check = (bytes: Uint8Array<ArrayBuffer>, columns: ColumnMap | null) =>
    run(async () => {
      const query = queryOf(columns);
      setBrought({
        bytes,
        report: await postBytes<PeopleReport>(`/rounds/${id}/people/check${query}`, bytes),
      });
    });
  const report = brought?.report;
  const invite = () =>
    run(async () => {
      const { bytes } = brought!;
      const query = queryOf(report!.columns, names);
      const done = await postBytes<PeopleReport>(`/rounds/${id}/people/invite${query}`, bytes);
      setBrought({ bytes, report: done });
      await client.invalidateQueries({ queryKey: [`/rounds/${id}/candidates`] });
    });
  const count = (state: string) => report?.rows.filter((row) => row.state === state).length ?? 0;
  const open = count('new') + count('changed');
  const renamed =
    report?.rows.filter((row) => row.knownAs !== null && (row.state === 'new' || row.state === 'changed'))
      .length ?? 0;
  return (
    <StaffPage
      title={t('importPeople')}
      aside={
        report?.done == null &&
        open > 0 && (
          <Button
            look="first"
            disabled={busy || (renamed > 0 && names === null)}
            onClick={() => void invite()}
          >
            {t('invitePeople', { count: open })}
          </Button>
        )
      }
    >
      <p className="mb-4 max-w-[70ch]">{t('importPeopleText')}</p>
      {report?.done ? (
        <Notice tone="plain">
          {t('peopleDone', { invited: report.done.invited, changed: report.done.changed })}{' '}
          <Link to={`/staff/rounds/${id}`} className="text-slate underline underline-offset-4">
            {t('toRound')}
          </Link>
        </Notice>
      ) : (
        <div className="mb-4 grid items-start gap-5 desk:grid-cols-2">
          <label className="block">
            {t('peopleFile')}
            <input
              type="file"
              accept=".csv,.txt,.tsv,text/csv,text/plain"
              className={FIELD}
              onChange={(event) => {
                const file = event.target.files?.[0];
                if (file) void file.arrayBuffer().then((bytes) => check(new Uint8Array(bytes), null));
                event.target.value = '';
              }}
            />
          </label>
          <div>
            <label className="block">
              {t('peoplePasted')}
              <textarea
                rows={4}
                value={pasted}
                onChange={(event) => setPasted(event.target.value)}
                className={`${FIELD} font-mono text-[0.9rem]`}
              />
            </label>
            <Button
              className="mt-2"
              disabled={busy || pasted.trim() === ''}
              onClick={() => void check(new TextEncoder().encode(pasted), null)}
            >
              {t('checkPasted')}
            </Button>
          </div>
        </div>
      )}
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      {report?.problem && <Notice tone="care">{say(report.problem)}</Notice>}
      {report && report.headings.length > 0 && !report.done && (
        <Columns report={report} onChange={(columns) => void check(brought.bytes, columns)} />
      )}
      {renamed > 0 && report?.done == null && <Names count={renamed} chosen={names} onChoose={setNames} />}
      {report && report.rows.length > 0 && (
        <>
          <p role="status" className="mb-2">
            {t('peopleCounts', {
              fresh: count('new'),
              changed: count('changed'),
              same: count('same'),
              wrong: count('wrong'),
            })}
          </p>
          <Rows report={report} />
        </>
      )}
    </StaffPage>
  );
}
