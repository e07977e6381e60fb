import { useMemo } from 'react';
import { informationCurves, shownAbilities, type InformationCurves } from '../../core/adaptive/report';
import type { AdaptiveView } from '../../core/papers/adaptiveApi';
import { LEAST_PERSONS } from '../../core/papers/adaptivePool';
import { CHART_FONT, EChart, type ChartOptions } from '../charts/EChart';
import { Card } from '../ui/Card';
import { Simulation } from './Simulation';
import { t } from './words';

const [KELP, MARIGOLD, SLATE] = ['#12564f', '#8a5a00', '#33527a'];

/** The whole logits of the chart, in figures. */
function InformationTable({ curves }: { readonly curves: InformationCurves }) {
  const at = shownAbilities.flatMap((ability, i) => (Number.isInteger(ability) ? [{ ability, i }] : []));
  const rows = [
    { name: t('ofPool'), figures: at.map(({ i }) => curves.pool[i]!) },
    { name: t('ofBest'), figures: at.map(({ i }) => curves.best[i]!) },
    { name: t('needed'), figures: at.map(() => curves.needed) },
  ];
  return (
    <details className="text-[0.92rem]">
      <summary className="cursor-pointer text-slate">{t('figures')}</summary>
      <table className="mt-1 w-full">
        <thead>
          <tr className="border-b border-line text-soft">
            <th scope="col" className="py-1 text-left font-normal">
              {t('ability')}
            </th>
            {at.map(({ ability }) => (
              <th key={ability} scope="col" className="py-1 text-right font-normal">
                {String(ability).replace('-', '−')}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.map(({ name, figures }) => (
            <tr key={name} className="border-b border-line/70 last:border-0">
              <th scope="row" className="py-1 text-left font-normal">
                {name}
              </th>
              {figures.map((figure, i) => (
                <td key={at[i]!.ability} className="py-1 text-right">
                  {figure.toFixed(1)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}

function Information({ section }: { readonly section: AdaptiveView }) {
  const curves = useMemo(() => informationCurves(section), [section]);
  const options = useMemo((): ChartOptions => {
    const { pool, best, needed } = curves;
    const line = (
      name: string,
      data: readonly number[],
      color: string,
      type: 'solid' | 'dashed' | 'dotted',
    ) => ({
      name,
      type: 'line',
      symbol: 'none',
      data: data.map((value, i) => [shownAbilities[i]!, value]),
      lineStyle: { color, type, width: 2 },
      itemStyle: { color },
    });
    return {
      animation: false,
      textStyle: CHART_FONT,
      legend: { bottom: 0, textStyle: CHART_FONT },
      grid: { left: 8, right: 16, top: 12, bottom: 56, containLabel: true },
      xAxis: {
        type: 'value',
        min: -3,
        max: 3,
        name: t('ability'),
        nameLocation: 'middle',
        nameGap: 26,
        axisLine: { onZero: false },
        nameTextStyle: CHART_FONT,
        axisLabel: { ...CHART_FONT, formatter: (value: number) => String(value).replace('-', '−') },
      },
      yAxis: { type: 'value', axisLine: { onZero: false }, axisLabel: CHART_FONT },
      series: [
        line(t('ofPool'), pool, KELP, 'solid'),
        line(t('ofBest'), best, SLATE, 'dashed'),
        line(
          t('needed'),
          pool.map(() => needed),
          MARIGOLD,
          'dotted',
        ),
      ],
    };
  }, [curves]);
  return (
    <Card title={t('information')}>
      <p className="text-[0.92rem] text-soft">{t('informationText')}</p>
      <EChart options={options} label={t('information')} className="h-64 w-full" />
      <InformationTable curves={curves} />
    </Card>
  );
}

function calibrationLine({ estimated, calibratedOn }: AdaptiveView): string {
  if (estimated > 0) return t('estimated', { count: estimated });
  return calibratedOn < LEAST_PERSONS
    ? t('calibratedFew', { count: calibratedOn, least: LEAST_PERSONS })
    : t('calibrated', { count: calibratedOn });
}

/** What is prepared of an adaptive section: its rules in sentences, what its pool tells, and a simulation. */
export function AdaptiveSectionView({ section }: { readonly section: AdaptiveView }) {
  const { key, title, rules, questions, minutes } = section;
  const topics = rules.topics
    .map(({ topic, share }) => `${topic} ${Math.round(share * 100)}\u00a0%`)
    .join(', ');
  return (
    <section aria-label={title} className="mb-6 max-w-[70rem] space-y-3">
      <h2 className="text-[1.1rem] font-semibold">{t('adaptive', { key })}</h2>
      <div className="max-w-[70ch] space-y-1.5">
        <p>
          {t('adaptiveText', {
            least: rules.leastLength,
            most: rules.greatestLength,
            count: questions,
            minutes,
            error: rules.targetError,
            best: rules.best,
            exposure: Math.round(rules.exposureLimit * 100),
          })}{' '}
          {t('adaptiveTopics', { topics })}
        </p>
        <p>{calibrationLine(section)}</p>
        <p className="text-marigold">{t('adaptiveNotYet')}</p>
      </div>
      <div className="grid items-start gap-4 desk:grid-cols-2">
        <Information section={section} />
        <Simulation section={section} />
      </div>
    </section>
  );
}
