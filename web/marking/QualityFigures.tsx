import { useMemo, useState } from 'react';
import type { QualityData } from '../../core/marking/api';
import { alignMarks } from '../../core/marks';
import { CHART_FONT, EChart, type ChartOptions } from '../charts/EChart';
import { Card } from '../ui/Card';
import { perCent, showDifference, showEstimate, showInterval, showShare, twoPlaces } from './figures';
import { LINK } from './qualityParts';
import { t } from './words';

/** How far two marks of the same responses agree, each figure with its interval. */
export function Agreement({ data }: { readonly data: QualityData }) {
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
export function Scatter({ data }: { readonly data: QualityData }) {
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
