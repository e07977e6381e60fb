import { useMemo, useState, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import type { AssessorQuality, AsideRow, QualityData } from '../../core/marking/api';
import { showMarks } from '../../core/marks';
import type { Estimate } from '../../core/measures/estimate';
import { messageOf, post } from '../api/client';
import { CHART_FONT, EChart, type ChartOptions } from '../charts/EChart';
import { useFetched } from '../staff/queries';
import { Button } from '../ui/Button';
import { Confirm } from '../ui/Confirm';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { showDay } from '../ui/times';
import { useAction } from '../ui/useAsync';
import { say } from '../words';
import { perCent, showDifference, showEstimate, showInterval, showShare, twoPlaces } from './figures';
import { t } from './words';

type Act = (path: string, body?: object) => Promise<void>;

const LINK = 'text-slate underline underline-offset-4';
const FIELD = 'mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3';

function Card({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section aria-label={title} className="rounded-card border border-line bg-card p-4">
      <h2 className="mb-2 font-semibold">{title}</h2>
      {children}
    </section>
  );
}

/** The mean difference against the others as a point with its interval, around nothing. */
function Severity({ estimate, most }: { readonly estimate: Estimate; readonly most: number }) {
  if (estimate.value === null) return <span className="text-soft">{t(`undefined ${estimate.reason}`)}</span>;
  const [low, high] = estimate.interval ?? [estimate.value, estimate.value];
  const at = (value: number) => 50 + (50 * Math.min(most, Math.max(-most, value))) / most;
  return (
    <div>
      <div aria-hidden className="relative h-6 w-36">
        <span className="absolute inset-y-0 left-1/2 w-0.5 bg-edge" />
        <span
          className="absolute top-1/2 h-[3px] -translate-y-1/2 bg-filled"
          style={{ left: `${at(low)}%`, width: `${at(high) - at(low)}%` }}
        />
        <span
          className="absolute top-1/2 size-2.5 -translate-1/2 rounded-full bg-filled"
          style={{ left: `${at(estimate.value)}%` }}
        />
      </div>
      <p className="text-[0.82rem] text-soft">
        {t('severityFigure', {
          figure: showDifference(estimate.value),
          interval: showInterval(estimate, showDifference, [-Infinity, Infinity]),
        })}
      </p>
    </div>
  );
}

/** Holds an assessor's marking of this item, or tells that they are absent: each asks for the reason. */
function HoldForm({ who, act }: { readonly who: AssessorQuality; readonly act: Act }) {
  const [open, setOpen] = useState<'hold' | 'absence' | null>(null);
  const [reason, setReason] = useState('');
  const { busy, trouble, run } = useAction();
  const end = who.absent ? 'absence' : who.held !== null ? 'hold' : null;
  const send = (path: 'hold' | 'absence', held: boolean) =>
    run(async () => {
      await act(path, { assessor: who.id, held, reason: held ? reason : t('holdEnded') });
      setOpen(null);
      setReason('');
    });
  if (end)
    return (
      <div className="text-[0.88rem]">
        <p className="text-marigold">{who.absent ? t('isAbsent') : t('isHeld', { reason: who.held! })}</p>
        <button type="button" disabled={busy} onClick={() => void send(end, false)} className={LINK}>
          {t(end === 'hold' ? 'endHold' : 'endAbsence')}
        </button>
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
      </div>
    );
  if (!open)
    return (
      <p className="flex flex-col items-start gap-y-0.5 text-[0.88rem] whitespace-nowrap">
        <button type="button" onClick={() => setOpen('hold')} className={LINK}>
          {t('hold')}
        </button>
        <button type="button" onClick={() => setOpen('absence')} className={LINK}>
          {t('absence')}
        </button>
      </p>
    );
  return (
    <form
      className="space-y-1.5 text-[0.88rem]"
      onSubmit={(event) => {
        event.preventDefault();
        void send(open, true);
      }}
    >
      <label className="block">
        {t(open === 'hold' ? 'holdWhy' : 'absenceWhy')}
        <input
          required
          minLength={2}
          value={reason}
          onChange={(event) => setReason(event.target.value)}
          className={FIELD}
        />
      </label>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <div className="flex gap-2">
        <Button disabled={busy || reason.trim().length < 2} onClick={() => void send(open, true)}>
          {t(open)}
        </Button>
        <Button look="quiet" onClick={() => setOpen(null)}>
          {t('cancel')}
        </Button>
      </div>
    </form>
  );
}

function Assessors({ data, act }: { readonly data: QualityData; readonly act: Act }) {
  const most = Math.max(
    100,
    ...data.assessors.flatMap(({ severity }) =>
      severity.value === null ? [] : (severity.interval ?? [severity.value]).map(Math.abs),
    ),
  );
  const heads = ['assessor', 'markedHead', 'leftHead', 'perHour', 'severity', 'standardsHead'] as const;
  return (
    <section aria-label={t('assessors')} className="overflow-x-auto rounded-card border border-line bg-card">
      <table className="w-full">
        <thead>
          <tr className="border-b border-line text-left text-[0.85rem] text-soft">
            {heads.map((head) => (
              <th key={head} scope="col" className="px-3 py-2 font-semibold">
                {t(head)}
              </th>
            ))}
            <th scope="col" className="px-3 py-2">
              <span className="sr-only">{t('acts')}</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {data.assessors.map((who) => (
            <tr key={who.id} className="border-b border-line/70 align-top last:border-0">
              <th scope="row" className="px-3 py-2 text-left font-semibold">
                {who.name}
              </th>
              <td className="px-3 py-2">{who.marked}</td>
              <td className="px-3 py-2">{who.left}</td>
              <td className="px-3 py-2">{who.anHour === null ? '–' : Math.round(who.anHour)}</td>
              <td className="px-3 py-2">
                <Severity estimate={who.severity} most={most} />
              </td>
              <td className="px-3 py-2">
                {who.standards.of === 0 ? (
                  '–'
                ) : (
                  <Pill tone={who.standards.drifted ? 'care' : 'good'}>
                    {t('standardsWithin', { count: who.standards.within, of: who.standards.of })}
                  </Pill>
                )}
                {who.standards.drifted && <p className="pt-1 text-[0.82rem] text-marigold">{t('drifted')}</p>}
              </td>
              <td className="px-3 py-2">{data.signedOffAt === null && <HoldForm who={who} act={act} />}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  );
}

function Agreement({ data }: { readonly data: QualityData }) {
  const { exact, adjacent, kappa, intraclass, fleiss, difference } = data.agreement;
  const share: readonly [number, number] = [0, 1];
  const whole: readonly [number, number] = [-1, 1];
  const icc = intraclass.find(({ form }) => form === '2,1')!;
  const rows = [
    [t('exact'), showShare(exact), showInterval(exact, perCent, share)],
    [t('adjacent'), showShare(adjacent), showInterval(adjacent, perCent, share)],
    [t('kappa'), showEstimate(kappa), showInterval(kappa, twoPlaces, whole)],
    [t('icc', { form: icc.form }), showEstimate(icc.estimate), showInterval(icc.estimate, twoPlaces, whole)],
    [
      t('difference'),
      difference.value === null ? '–' : showDifference(difference.value),
      showInterval(difference, showDifference, [-Infinity, Infinity]),
    ],
  ] as const;
  const more = [
    ...intraclass
      .filter(({ form }) => form !== '2,1')
      .map(
        ({ form, estimate }) =>
          [t('icc', { form }), showEstimate(estimate), showInterval(estimate, twoPlaces, whole)] as const,
      ),
    [t('fleiss'), showEstimate(fleiss), showInterval(fleiss, twoPlaces, whole)] as const,
  ];
  const table = (all: readonly (readonly [string, string, string])[]) => (
    <table className="w-full text-[0.92rem]">
      <tbody>
        {all.map(([name, figure, interval]) => (
          <tr key={name} className="border-b border-line/70 last:border-0">
            <th scope="row" className="py-1.5 pr-2 text-left font-normal">
              {name}
            </th>
            <td className="py-1.5 pr-3 text-right font-semibold">{figure}</td>
            <td className="py-1.5 text-soft">{interval}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
  return (
    <Card title={t('agreementOf', { count: data.pairs.length })}>
      {table(rows)}
      <details className="mt-1">
        <summary className="min-h-8 py-1 text-[0.88rem] text-slate">{t('moreFigures')}</summary>
        {table(more)}
      </details>
    </Card>
  );
}

/** First against second mark: within the band they agree. */
function Scatter({ data }: { readonly data: QualityData }) {
  const options = useMemo((): ChartOptions => {
    const most = data.marks / 100;
    const tolerance = data.settings.tolerance / 100;
    const axis = {
      type: 'value',
      min: 0,
      max: most,
      nameLocation: 'middle',
      nameTextStyle: CHART_FONT,
      axisLabel: CHART_FONT,
    };
    const line = (by: number) => ({
      type: 'line',
      data:
        by >= 0
          ? [
              [0, by],
              [most - by, most],
            ]
          : [
              [-by, 0],
              [most, most + by],
            ],
      symbol: 'none',
      silent: true,
      lineStyle: {
        color: '#12564f',
        width: by === 0 ? 1.5 : 1,
        type: by === 0 ? [6, 5] : 'solid',
        opacity: by === 0 ? 1 : 0.5,
      },
    });
    const points = (inside: boolean) =>
      data.pairs
        .filter(([a, b]) => Math.abs(a - b) <= data.settings.tolerance === inside)
        .map(([a, b]) => [a / 100, b / 100]);
    return {
      animation: false,
      textStyle: CHART_FONT,
      grid: { top: 12, left: 30, right: 16, bottom: 28, outerBoundsMode: 'same' },
      xAxis: { ...axis, name: t('firstMark'), nameGap: 28 },
      yAxis: { ...axis, name: t('secondMark'), nameGap: 30 },
      series: [
        line(0),
        ...(tolerance > 0 ? [line(tolerance), line(-tolerance)] : []),
        { type: 'scatter', data: points(true), symbolSize: 9, color: '#33475b' },
        { type: 'scatter', data: points(false), symbolSize: 11, symbol: 'diamond', color: '#8a5000' },
      ],
    };
  }, [data]);
  const [asTable, setAsTable] = useState(false);
  if (data.pairs.length === 0) return null;
  return (
    <Card title={t('scatter')}>
      {asTable ? (
        <div className="max-h-72 overflow-y-auto" tabIndex={0} role="group" aria-label={t('scatter')}>
          <table className="w-full max-w-60 text-right">
            <thead>
              <tr className="text-[0.85rem] text-soft">
                <th scope="col">{t('firstMark')}</th>
                <th scope="col">{t('secondMark')}</th>
              </tr>
            </thead>
            <tbody>
              {data.pairs.map(([a, b], i) => (
                <tr key={i}>
                  <td>{showMarks(a)}</td>
                  <td>{showMarks(b)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      ) : (
        <EChart
          options={options}
          label={t('scatterWords', { count: data.pairs.length, gaps: data.gaps.length })}
          className="h-72 w-full"
        />
      )}
      <button type="button" onClick={() => setAsTable(!asTable)} className={`${LINK} text-[0.88rem]`}>
        {t(asTable ? 'asChart' : 'asTable')}
      </button>
    </Card>
  );
}

function Gaps({ data }: { readonly data: QualityData }) {
  return (
    <Card title={t('gaps')}>
      {data.gaps.length === 0 && <p className="text-soft">{t('noGaps')}</p>}
      <ul className="divide-y divide-line/70">
        {data.gaps.map(({ id, script, first, second }) => (
          <li key={id} className="flex items-center gap-4 py-1.5">
            <span className="flex-1 font-mono">{script}</span>
            <span>{t('gapMarks', { first: showMarks(first), second: showMarks(second) })}</span>
            <Link
              to={`/staff/gaps/${data.round}/${id}`}
              aria-label={t('settleScript', { script })}
              className={LINK}
            >
              {t('settle')}
            </Link>
          </li>
        ))}
      </ul>
    </Card>
  );
}

function AsideAnswer({ aside, act }: { readonly aside: AsideRow; readonly act: Act }) {
  const [answer, setAnswer] = useState('');
  const { busy, trouble, run } = useAction();
  return (
    <li className="py-2">
      <p>
        <span className="font-mono">{aside.script}</span> · {aside.assessor} ·{' '}
        <b>{t(`aside ${aside.reason}`)}</b>
      </p>
      {aside.note && <p className="text-soft">“{aside.note}”</p>}
      <form
        className="mt-1 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void run(() => act('answer', { id: aside.id, answer }));
        }}
      >
        <input
          value={answer}
          required
          minLength={2}
          maxLength={1000}
          aria-label={t('answerTo', { script: aside.script })}
          onChange={(event) => setAnswer(event.target.value)}
          className="min-h-10 min-w-0 flex-1 rounded-control border border-edge bg-card px-3"
        />
        <button
          type="submit"
          disabled={busy}
          className="rounded-control border border-line bg-card px-3.5 hover:border-edge"
        >
          {t('answerAct')}
        </button>
      </form>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
    </li>
  );
}

function Clarify({ data, act }: { readonly data: QualityData; readonly act: Act }) {
  const [text, setText] = useState('');
  const { busy, trouble, run } = useAction();
  const add = () =>
    run(async () => {
      await act('clarify', { text });
      setText('');
    });
  return (
    <Card title={t('clarifications')}>
      <ul className="list-disc pl-5">
        {data.clarifications.map((one) => (
          <li key={one.id} className="whitespace-pre-wrap">
            {one.text}
          </li>
        ))}
      </ul>
      {data.signedOffAt === null && (
        <>
          <label className="block pt-1">
            {t('clarifyLabel')}
            <textarea
              rows={2}
              maxLength={2000}
              value={text}
              onChange={(event) => setText(event.target.value)}
              className={`${FIELD} py-2`}
            />
          </label>
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
          <Button disabled={busy || text.trim().length < 2} onClick={() => void add()} className="mt-2">
            {t('clarifyAct')}
          </Button>
        </>
      )}
    </Card>
  );
}

function Settings({ data, act }: { readonly data: QualityData; readonly act: Act }) {
  const { settings } = data;
  const [double, setDouble] = useState(String(settings.doublePercent));
  const [tolerance, setTolerance] = useState(String(settings.tolerance / 100));
  const [every, setEvery] = useState(String(settings.standardEvery));
  const { busy, trouble, run } = useAction();
  const body = {
    doublePercent: Number(double),
    tolerance: Math.round(Number(tolerance.replace(',', '.')) * 100),
    standardEvery: Number(every),
  };
  const fields = [
    ['doubleField', double, setDouble, 0, 100],
    ['toleranceField', tolerance, setTolerance, 0, data.marks / 100],
    ['everyField', every, setEvery, 2, 1000],
  ] as const;
  return (
    <Card title={t('howMarked')}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void run(() => act('settings', body));
        }}
      >
        {fields.map(([name, value, set, min, max]) => (
          <label key={name} className="block text-[0.92rem]">
            {t(name)}
            <input
              type="number"
              step="any"
              min={min}
              max={max}
              required
              value={value}
              onChange={(event) => set(event.target.value)}
              className={FIELD}
            />
          </label>
        ))}
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <button
          type="submit"
          disabled={busy || data.signedOffAt !== null}
          className="min-h-10 rounded-control border border-line bg-card px-3.5 hover:border-edge disabled:text-soft"
        >
          {t('saveSettings')}
        </button>
      </form>
    </Card>
  );
}

function Standards({ data }: { readonly data: QualityData }) {
  const path = `/staff/standards/${data.round}/${data.target}`;
  const free = data.candidates.filter(({ script }) => data.standards.every((one) => one.script !== script));
  const [script, setScript] = useState('');
  const chosen = script || free[0]?.script;
  return (
    <Card title={t('standards')}>
      {data.standards.length === 0 && <p className="text-soft">{t('noStandards')}</p>}
      <ul className="divide-y divide-line/70">
        {data.standards.map((one) => (
          <li key={one.id} className="py-1.5">
            <span className="font-mono">{one.script}</span> · {t(`use ${one.use}`)} ·{' '}
            {t('agreedMarks', { marks: showMarks(one.agreed) })} · {t('markedTimes', { count: one.marked })}
            <span className="block text-[0.88rem] text-soft">{one.reason}</span>
          </li>
        ))}
      </ul>
      {data.signedOffAt === null && chosen && (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          <select
            aria-label={t('standardScript')}
            value={chosen}
            onChange={(event) => setScript(event.target.value)}
            className="min-h-10 rounded-control border border-edge bg-card px-2"
          >
            {free.map((one) => (
              <option key={one.script} value={one.script}>
                {one.marked ? t('scriptMarked', { script: one.script }) : one.script}
              </option>
            ))}
          </select>
          <Link to={`${path}/${chosen}`} className={LINK}>
            {t('recordAgreed')}
          </Link>
        </p>
      )}
    </Card>
  );
}

/** How an item is marked: figures by assessor and item, gaps, questions, scripts with agreed marks, and the sign-off. */
export function QualityPage() {
  const { round = '', item = '', part = '' } = useParams();
  const path = `/marking/quality/${round}/${item}/${part}`;
  const [loaded, , replace] = useFetched<QualityData>(path);
  if (loaded.state === 'loading') return <main className="p-8 text-soft">…</main>;
  if (loaded.state === 'trouble')
    return (
      <main className="p-8">
        <Notice tone="trouble">{loaded.message}</Notice>
      </main>
    );
  const data = loaded.value;
  const act: Act = async (name, body = {}) => replace(await post<QualityData>(`${path}/${name}`, body));
  const signOff = async () => {
    try {
      await act('sign-off');
    } catch (problem) {
      throw new Error(messageOf(problem), { cause: problem });
    }
  };
  const settings = `${data.settings.doublePercent} ${data.settings.tolerance} ${data.settings.standardEvery}`;
  return (
    <main className="min-w-0 flex-1 overflow-y-auto px-7 py-4">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <div className="min-w-0 flex-1">
          <h1 className="font-serif text-[1.6rem] font-semibold">{t('quality')}</h1>
          <p className="text-soft">
            {t('qualityOf', { round: data.roundTitle, title: data.title, marks: showMarks(data.marks) })}
          </p>
        </div>
        <Link to={`/staff/similar/${round}/${item}/${part}`} className={LINK}>
          {t('similar')}
        </Link>
        {data.signedOffAt !== null ? (
          <Pill tone="good">{t('signed')}</Pill>
        ) : (
          data.open.length === 0 && (
            <Confirm
              act={t('signItem')}
              title={t('signItemTitle', { title: data.title })}
              text={t('signText')}
              keep={t('signKeep')}
              onAct={signOff}
            />
          )
        )}
      </div>
      <p className="flex flex-wrap gap-x-6 gap-y-1 py-2 text-[0.95rem]">
        <span>{t('givenOf', { given: data.given, all: data.all })}</span>
        <span>
          {t('markedTwice', {
            share: data.scripts === 0 ? 0 : Math.round((100 * data.twice) / data.scripts),
          })}
        </span>
        {data.gaps.length > 0 && (
          <span className="text-marigold">{t('gapsOpen', { count: data.gaps.length })}</span>
        )}
        {data.asides.length > 0 && (
          <span className="text-marigold">{t('asidesOpen', { count: data.asides.length })}</span>
        )}
        {data.finishAt !== null && (
          <span className="text-soft">{t('finish', { day: showDay(data.finishAt) })}</span>
        )}
      </p>
      {data.signedOffAt === null && data.open.length > 0 && (
        <p className="pb-2 text-[0.9rem] text-soft">
          {t('beforeSignOff')} {data.open.map(say).join(' ')}
        </p>
      )}
      <div className="grid items-start gap-4 desk:grid-cols-[minmax(0,5fr)_minmax(0,3fr)]">
        <div className="min-w-0 space-y-4">
          <Assessors data={data} act={act} />
          <Scatter data={data} />
          {data.asides.length > 0 && (
            <Card title={t('asides')}>
              <ul className="divide-y divide-line/70">
                {data.asides.map((aside) => (
                  <AsideAnswer key={aside.id} aside={aside} act={act} />
                ))}
              </ul>
            </Card>
          )}
          <Standards data={data} />
        </div>
        <div className="min-w-0 space-y-4">
          <Agreement data={data} />
          <Gaps data={data} />
          <Clarify data={data} act={act} />
          <Settings key={settings} data={data} act={act} />
        </div>
      </div>
    </main>
  );
}
