import { useMemo, useState } from 'react';
import { Link, useParams } from 'react-router';
import { alignMarks, showMarks } from '../../core/marks';
import {
  resultFilters,
  type CheckRow,
  type PackState,
  type ResultRow,
  type ScoreDistribution,
} from '../../core/results/api';
import type { StaffMember } from '../../core/rounds/api';
import { post } from '../api/client';
import { CHART_FONT, EChart, type ChartOptions } from '../charts/EChart';
import { DataTable, type Column } from '../staff/DataTable';
import { rowLink } from '../staff/links';
import { useFetched } from '../staff/queries';
import { Button } from '../ui/Button';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { StaffPage } from '../ui/StaffPage';
import { showMoment, showShort } from '../ui/times';
import { useAction } from '../ui/useAsync';
import { t } from './staffWords';

const LINK = 'text-slate underline underline-offset-4';
/** Bands are told apart by shade, and named in the table beside. */
const SHADES = ['#b8c3cf', '#8497ab', '#52687f', '#33475b', '#1f2e3e'];

function Chart({ data }: { readonly data: ScoreDistribution }) {
  const options = useMemo((): ChartOptions => {
    const bandAt = (at: number) => data.bands.findLastIndex((band) => at >= band.from);
    return {
      animation: false,
      textStyle: CHART_FONT,
      grid: { top: 12, left: 8, right: 8, bottom: 28, outerBoundsMode: 'same', outerBoundsContain: 'all' },
      tooltip: { trigger: 'item', textStyle: CHART_FONT },
      xAxis: {
        type: 'category',
        data: data.steps.map((step) => showMarks(step.at)),
        name: t('marksAxis'),
        nameLocation: 'middle',
        nameGap: 28,
        nameTextStyle: CHART_FONT,
        axisLabel: CHART_FONT,
      },
      yAxis: {
        type: 'value',
        minInterval: 1,
        axisLabel: CHART_FONT,
        splitLine: { lineStyle: { color: '#ddd9ce' } },
      },
      series: [
        {
          type: 'bar',
          barCategoryGap: '12%',
          data: data.steps.map((step) => ({
            value: step.count,
            itemStyle: { color: SHADES[Math.max(0, bandAt(step.at)) % SHADES.length] },
          })),
        },
      ],
    };
  }, [data]);
  return (
    <EChart
      options={options}
      label={t('distributionWords', { count: data.n, of: showMarks(data.of) })}
      className="h-56 w-full"
    />
  );
}

function Distribution({ round }: { readonly round: string }) {
  const [loaded] = useFetched<ScoreDistribution>(`/rounds/${round}/distribution`);
  const [asTable, setAsTable] = useState(false);
  if (loaded.state === 'loading') return <p className="text-soft">…</p>;
  if (loaded.state === 'trouble') return <Notice tone="trouble">{loaded.message}</Notice>;
  const data = loaded.value;
  const most = Math.max(1, ...data.bands.map((band) => band.count));
  return (
    <section aria-label={t('distribution')} className="mb-4 rounded-card border border-line bg-card p-4">
      <div className="flex flex-wrap items-baseline gap-x-4">
        <h2 className="font-semibold">{t('distribution')}</h2>
        <p className="flex-1 text-soft">
          {data.mean === null
            ? t('noneComplete')
            : t('meanAndDeviation', {
                count: data.n,
                mean: (data.mean / 100).toFixed(1),
                of: showMarks(data.of),
                deviation: data.deviation === null ? '–' : (data.deviation / 100).toFixed(1),
              })}
        </p>
        {data.n > 0 && (
          <button type="button" onClick={() => setAsTable(!asTable)} className={`${LINK} text-[0.88rem]`}>
            {t(asTable ? 'asChart' : 'asTable')}
          </button>
        )}
      </div>
      {data.n > 0 && (
        <div className="grid items-center gap-5 desk:grid-cols-[minmax(0,5fr)_minmax(0,2fr)]">
          {asTable ? (
            <table className="max-w-72">
              <thead>
                <tr className="text-left text-[0.85rem] text-soft">
                  <th scope="col">{t('from')}</th>
                  <th scope="col" className="text-right">
                    {t('candidates')}
                  </th>
                </tr>
              </thead>
              <tbody>
                {data.steps.map((step) => (
                  <tr key={step.at}>
                    <td>{alignMarks(step.at)}</td>
                    <td className="text-right">{step.count}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          ) : (
            <Chart data={data} />
          )}
          <table aria-label={t('bands')} className="w-full text-[0.92rem]">
            <tbody>
              {data.bands.toReversed().map((band, i) => (
                <tr key={band.title}>
                  <th scope="row" className="py-1 pr-2 text-left font-normal">
                    {band.title}{' '}
                    <span className="text-soft">{t('bandFrom', { from: showMarks(band.from) })}</span>
                  </th>
                  <td className="w-24 py-1">
                    <span
                      aria-hidden
                      className="block h-3 rounded"
                      style={{
                        width: `${(100 * band.count) / most}%`,
                        background: SHADES[(data.bands.length - 1 - i) % SHADES.length],
                      }}
                    />
                  </td>
                  <td className="py-1 pl-2 text-right font-semibold">{band.count}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
    </section>
  );
}

/** Who marks knows a script by its code until the sign-off. */
const nameOf = ({ name, script }: ResultRow) => name ?? t('scriptAsName', { code: script });

const columnsOf = (round: string, coordinates: boolean): readonly Column<ResultRow>[] => [
  {
    id: 'name',
    sortable: true,
    cell: (row) =>
      row.isVoid ? (
        nameOf(row)
      ) : (
        <Link
          to={`/staff/results/${round}/${row.invitation}`}
          aria-label={t('sheetOf', { name: nameOf(row) })}
          className={rowLink}
        >
          {nameOf(row)}
        </Link>
      ),
  },
  { id: 'reference', sortable: true, cell: (row) => row.reference ?? '–' },
  { id: 'script', cell: (row) => <span className="font-mono">{row.script}</span> },
  { id: 'handedInAt', sortable: true, cell: (row) => showShort(row.handedInAt) },
  {
    id: 'total',
    sortable: true,
    right: true,
    cell: (row) => {
      if (row.isVoid) return <span className="text-brick">{t('isVoid')}</span>;
      return row.total === null ? (
        <span className="text-soft">{t('marked', { marks: showMarks(row.scored) })}</span>
      ) : (
        <b>{alignMarks(row.total)}</b>
      );
    },
  },
  { id: 'band', cell: (row) => row.band ?? '–' },
  { id: 'attempts', sortable: true, right: true, cell: (row) => row.attempts },
  { id: 'observations', sortable: true, right: true, cell: (row) => row.observations },
  {
    id: 'notes',
    actions: true,
    cell: (row) => (
      <span className="flex flex-wrap gap-x-3">
        {row.checkOpen && <Pill tone="care">{t('checkOpen')}</Pill>}
        {coordinates && (
          <Link
            to={`/staff/review/${round}/${row.invitation}`}
            aria-label={t('reviewOf', { name: nameOf(row) })}
            className={LINK}
          >
            {t('review')}
          </Link>
        )}
      </span>
    ),
  },
];

/** Tables that are not on a page: marks, and for who coordinates, who gave them. */
function Tables({ round, coordinates }: { readonly round: string; readonly coordinates: boolean }) {
  const tables = [
    'script-marks',
    'marks',
    'agreement',
    ...(coordinates ? (['marking'] as const) : []),
  ] as const;
  return (
    <section aria-label={t('tables')} className="mt-5 rounded-card border border-line bg-card p-4">
      <h2 className="font-semibold">{t('tables')}</h2>
      <ul className="pt-1">
        {tables.map((table) => (
          <li key={table} className="flex flex-wrap items-baseline gap-x-4">
            <span className="min-w-72">{t(`table ${table}`)}</span>
            {(['csv', 'xlsx'] as const).map((format) => (
              <a
                key={format}
                href={`/api/rounds/${round}/${table}.${format}`}
                download
                aria-label={t(`tableAs ${format}`, { table: t(`table ${table}`) })}
                className={`inline-flex min-h-9 items-center ${LINK}`}
              >
                {t(`as ${format}`)}
              </a>
            ))}
          </li>
        ))}
      </ul>
    </section>
  );
}

function Packs({ round }: { readonly round: string }) {
  const path = `/rounds/${round}/packs`;
  const [loaded, reload, replace] = useFetched<PackState[]>(path);
  const { busy, trouble, run } = useAction();
  if (loaded.state !== 'here') return null;
  const working = loaded.value.some((pack) => pack.state === 'working');
  return (
    <section aria-label={t('packs')} className="mt-5 rounded-card border border-line bg-card p-4">
      <h2 className="font-semibold">{t('packs')}</h2>
      <p className="text-soft">{t('packsText')}</p>
      <ul>
        {loaded.value.map((pack) => (
          <li key={pack.id} className="flex flex-wrap items-center gap-3 py-1">
            {pack.state === 'ready' && (
              <a href={`/api${path}/${pack.id}/scripts.zip`} download className={LINK}>
                {t('packReady', { when: showMoment(pack.at) })}
              </a>
            )}
            {pack.state === 'working' && (
              <>
                <progress
                  value={pack.done}
                  max={pack.of}
                  aria-label={t('packWorking', { done: pack.done, of: pack.of })}
                />
                <button type="button" onClick={reload} className={LINK}>
                  {t('packWorking', { done: pack.done, of: pack.of })}
                </button>
                <button
                  type="button"
                  onClick={() =>
                    void run(async () => replace(await post<PackState[]>(`${path}/${pack.id}/cancel`)))
                  }
                  className={LINK}
                >
                  {t('cancelPack')}
                </button>
              </>
            )}
            {pack.state === 'cancelled' && (
              <span className="text-soft">
                {showMoment(pack.at)}: {t('packCancelled')}
              </span>
            )}
          </li>
        ))}
      </ul>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <Button
        disabled={busy || working}
        onClick={() => void run(async () => replace(await post<PackState[]>(path)))}
        className="mt-2"
      >
        {t('makePack')}
      </Button>
    </section>
  );
}

function CheckItem({
  check,
  onSent,
}: {
  readonly check: CheckRow;
  readonly onSent: (body: object) => Promise<void>;
}) {
  const [answer, setAnswer] = useState('');
  const [changed, setChanged] = useState(false);
  const { busy, trouble, run } = useAction();
  const { name, reference } = check;
  return (
    <li className="py-2">
      <p className="font-semibold">{t('askedBy', { name, reference, when: showMoment(check.askedAt) })}</p>
      <p className="whitespace-pre-wrap">{check.reason}</p>
      {check.answer !== null ? (
        <p className="text-soft">
          {t('answered', { answer: check.answer })} ({t(check.changed ? 'effectChanged' : 'effectNone')})
        </p>
      ) : (
        <>
          <LongText
            label={t('answer', { name })}
            value={answer}
            onChange={setAnswer}
            most={2000}
            className="mt-1"
          />
          <label className="flex min-h-8 items-center gap-2">
            <input type="checkbox" checked={changed} onChange={(event) => setChanged(event.target.checked)} />
            {t('changed')}
          </label>
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
          <Button
            disabled={busy || answer.trim().length < 2}
            onClick={() => void run(() => onSent({ id: check.id, answer, changed }))}
          >
            {t('send')}
          </Button>
        </>
      )}
    </li>
  );
}

function Checks({ round }: { readonly round: string }) {
  const path = `/rounds/${round}/checks`;
  const [loaded, , replace] = useFetched<CheckRow[]>(path);
  if (loaded.state !== 'here') return null;
  return (
    <section aria-label={t('checks')} className="mt-5 rounded-card border border-line bg-card p-4">
      <h2 className="font-semibold">{t('checks')}</h2>
      {loaded.value.length === 0 && <p className="text-soft">{t('noChecks')}</p>}
      <ul className="divide-y divide-line/70">
        {loaded.value.map((check) => (
          <CheckItem
            key={check.id}
            check={check}
            onSent={async (body) => replace(await post<CheckRow[]>(path, body))}
          />
        ))}
      </ul>
    </section>
  );
}

/** The results of a round: distribution, everybody's marks, requests for a check, and packs. */
export function RoundResults() {
  const { id = '' } = useParams();
  const [me] = useFetched<StaffMember | null>('/me');
  const coordinates = me.state === 'here' && me.value?.roles.includes('coordinator') === true;
  const [spread] = useFetched<ScoreDistribution>(`/rounds/${id}/distribution`);
  const columns = useMemo(() => columnsOf(id, coordinates), [id, coordinates]);
  return (
    <StaffPage title={spread.state === 'here' ? t('resultsOf', { round: spread.value.round }) : t('results')}>
      <Distribution round={id} />
      <DataTable
        path={`/rounds/${id}/results`}
        label={t('candidates')}
        columns={columns}
        keyOf={(row) => row.invitation}
        empty={t('none')}
        filters={resultFilters.map((value) => ({ value, words: t(`filter ${value}`) }))}
      />
      <Checks round={id} />
      <Tables round={id} coordinates={coordinates} />
      {coordinates && <Packs round={id} />}
    </StaffPage>
  );
}
