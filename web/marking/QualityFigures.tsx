import { useMemo, useState } from 'react';
import type { QualityData } from '../../core/marking/api';
import type { Estimate } from '../../core/measures/estimate';
import { alignMarks } from '../../core/marks';
import { CHART_FONT, EChart, type ChartOptions } from '../charts/EChart';
import { Card } from '../ui/Card';
import {
  perCent,
  showDifference,
  showEstimate,
  showInterval,
  showShare,
  showSize,
  twoPlaces,
} from './figures';
import { LINK } from './qualityParts';
import { t } from './words';

const SHARE: readonly [number, number] = [0, 1];
const WHOLE: readonly [number, number] = [-1, 1];
const ANY: readonly [number, number] = [-Infinity, Infinity];

type Row = readonly [name: string, of: string, figure: string, interval: string];

const shareRow = (name: string, of: string, one: Estimate): Row => [
  name,
  of,
  showShare(one),
  showInterval(one, perCent, SHARE),
];
const wholeRow = (name: string, of: string, one: Estimate): Row => [
  name,
  of,
  showEstimate(one),
  showInterval(one, twoPlaces, WHOLE),
];

function Figures({ rows }: { readonly rows: readonly Row[] }) {
  return (
    <table className="w-full text-[0.92rem]">
      <tbody>
        {rows.map(([name, of, figure, interval]) => (
          <tr key={name} className="border-b border-line/70 align-top last:border-0">
            <th scope="row" className="py-1.5 pr-2 text-left font-normal">
              {name}
              <span className="block text-[0.82rem] text-soft">{of}</span>
            </th>
            <td className="py-1.5 text-right whitespace-nowrap">
              <b>{figure}</b>
              <span className="block text-[0.82rem] text-soft">{interval}</span>
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

/** Two assessors on the responses that both marked. */
export function Pairs({ data }: { readonly data: QualityData }) {
  if (data.agreement.pairs.length === 0) return null;
  const nameOf = (id: number) => data.assessors.find((one) => one.id === id)?.name ?? t('formerAssessor');
  const heads = [
    'pairHead',
    'pairCount',
    'exact',
    'kappa',
    'linear',
    'plain',
    'pearson',
    'spearman',
  ] as const;
  return (
    <Card title={t('byPair')}>
      <div className="overflow-x-auto" tabIndex={0} role="group" aria-label={t('byPair')}>
        <table className="w-full text-[0.88rem]">
          <thead>
            <tr className="border-b border-line text-left text-[0.82rem] text-soft">
              {[...heads, 'difference', 'spread'].map((head) => (
                <th key={head} scope="col" className="py-1.5 pr-3 font-semibold">
                  {t(head as (typeof heads)[number] | 'difference' | 'spread')}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {data.agreement.pairs.map((pair) => (
              <tr key={pair.assessors.join()} className="border-b border-line/70 last:border-0">
                <th scope="row" className="py-1.5 pr-3 text-left font-normal">
                  {t('pairOf', { first: nameOf(pair.assessors[0]), second: nameOf(pair.assessors[1]) })}
                </th>
                <td className="py-1.5 pr-3">{pair.exact.n}</td>
                <td className="py-1.5 pr-3">{showShare(pair.exact)}</td>
                {[pair.kappa, pair.linear, pair.plain, pair.pearson, pair.spearman].map((one, i) => (
                  <td key={i} className="py-1.5 pr-3" title={showInterval(one, twoPlaces, WHOLE)}>
                    {showEstimate(one)}
                  </td>
                ))}
                {[pair.difference, pair.spread].map((one, i) => (
                  <td
                    key={i}
                    className="py-1.5 pr-3 whitespace-nowrap"
                    title={i === 0 ? showInterval(one, showDifference, ANY) : undefined}
                  >
                    {one.value === null ? '–' : i === 0 ? showDifference(one.value) : showSize(one.value)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
    </Card>
  );
}

/** How far two marks of the same responses agree, each figure with what it is of and its interval. */
export function Agreement({ data }: { readonly data: QualityData }) {
  const { people, exact, adjacent, absolute, intraclass, ordinal, interval, fleiss, pairs } = data.agreement;
  const [icc, ...others] = intraclass.map(({ form, estimate }) =>
    wholeRow(t('icc', { form }), t(`icc ${form}`), estimate),
  );
  const [only] = pairs;
  const rows = [
    shareRow(t('exact'), t('exactOf'), exact),
    shareRow(t('adjacent'), t('adjacentOf'), adjacent),
    [
      t('absolute'),
      t('absoluteOf'),
      absolute.value === null ? '–' : showSize(absolute.value),
      showInterval(absolute, showSize, [0, Infinity]),
    ] as const,
    icc!,
    ...(people === 2 && only ? [wholeRow(t('kappa'), t('kappaOf'), only.kappa)] : []),
    wholeRow(t('alphaInterval'), t('alphaIntervalOf'), interval),
  ];
  const more = [
    ...others,
    wholeRow(t('alphaOrdinal'), t('alphaOrdinalOf'), ordinal),
    wholeRow(t('fleiss'), t('fleissOf'), fleiss),
  ];
  return (
    <Card title={t('agreementOf', { count: data.pairs.length })}>
      {people > 0 && (
        <p className="pb-1 text-[0.88rem] text-soft">{t('agreementPeople', { count: people })}</p>
      )}
      <Figures rows={rows} />
      <details className="mt-1">
        <summary className="min-h-8 py-1 text-[0.88rem] text-slate">{t('moreFigures')}</summary>
        <Figures rows={more} />
      </details>
    </Card>
  );
}

/** Whose marks the axes are. */
function axesOf({ agreement, assessors }: QualityData): readonly [string, string] {
  const [only] = agreement.pairs;
  if (agreement.people !== 2 || !only) return [t('oneMark'), t('otherMark')];
  const [a, b] = only.assessors.map(
    (id) => assessors.find((one) => one.id === id)?.name ?? t('formerAssessor'),
  );
  return [t('marksBy', { name: a! }), t('marksBy', { name: b! })];
}

/** Both marks of each response, by assessor where there are two: within the band they agree. */
export function Scatter({ data }: { readonly data: QualityData }) {
  const [first, second] = useMemo(() => axesOf(data), [data]);
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
      xAxis: { ...axis, name: first, nameGap: 28 },
      yAxis: { ...axis, name: second, nameGap: 30 },
      series: [
        line(0),
        ...(tolerance > 0 ? [line(tolerance), line(-tolerance)] : []),
        { type: 'scatter', data: points(true), symbolSize: 9, color: '#33475b' },
        { type: 'scatter', data: points(false), symbolSize: 11, symbol: 'diamond', color: '#8a5000' },
      ],
    };
  }, [data, first, second]);
  const [asTable, setAsTable] = useState(false);
  if (data.pairs.length === 0) return null;
  return (
    <Card title={t('scatter')}>
      {asTable ? (
        <div className="max-h-72 overflow-y-auto" tabIndex={0} role="group" aria-label={t('scatter')}>
          <table className="w-full max-w-60 text-right">
            <thead>
              <tr className="text-[0.85rem] text-soft">
                <th scope="col">{first}</th>
                <th scope="col">{second}</th>
              </tr>
            </thead>
            <tbody>
              {data.pairs.map(([a, b], i) => (
                <tr key={i}>
                  <td>{alignMarks(a)}</td>
                  <td>{alignMarks(b)}</td>
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
