import { useState } from 'react';
import type { AssessorQuality, QualityData } from '../../core/marking/api';
import type { Estimate } from '../../core/measures/estimate';
import { Card } from '../ui/Card';
import { showDifference, showInterval } from './figures';
import { LINK } from './qualityParts';
import { t } from './words';

/** A figure that surely is not nought stands out. */
const isSure = (estimate: Estimate): boolean =>
  estimate.value !== null &&
  estimate.interval !== null &&
  (estimate.interval[0] > 0 || estimate.interval[1] < 0);

function Figure({ estimate }: { readonly estimate: Estimate | undefined }) {
  if (!estimate || estimate.value === null) return <span className="text-soft">–</span>;
  const told = t('driftFigure', {
    count: estimate.n,
    interval: showInterval(estimate, showDifference, [-Infinity, Infinity]),
  });
  return (
    <span title={told} className={isSure(estimate) ? 'font-semibold text-marigold' : ''}>
      {showDifference(estimate.value)}
      <span className="sr-only"> {told}</span>
    </span>
  );
}

function Table({
  who,
  heads,
  figureOf,
}: {
  readonly who: readonly AssessorQuality[];
  readonly heads: readonly string[];
  readonly figureOf: (who: AssessorQuality, at: number) => Estimate | undefined;
}) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full text-[0.92rem]">
        <thead>
          <tr className="text-right text-[0.85rem] text-soft">
            <th scope="col" className="py-1 pr-2 text-left font-semibold">
              {t('assessor')}
            </th>
            {heads.map((head) => (
              <th key={head} scope="col" className="px-1.5 py-1 font-semibold whitespace-nowrap">
                {head}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {who.map((one) => (
            <tr key={one.id} className="border-t border-line/70 text-right">
              <th
                scope="row"
                className="max-w-40 truncate py-1.5 pr-2 text-left font-normal"
                title={one.name}
              >
                {one.name}
              </th>
              {heads.map((head, i) => (
                <td key={head} className="px-1.5 py-1.5 tabular-nums">
                  <Figure estimate={figureOf(one, i)} />
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  );
}

/** Severity over time, by tenth of what each has marked or by day. */
export function Drift({ data }: { readonly data: QualityData }) {
  const [byDay, setByDay] = useState(false);
  const who = data.assessors.filter(({ drift }) => drift.byTenth.some(({ value }) => value !== null));
  if (who.length === 0) return null;
  const days = [...new Set(who.flatMap(({ drift }) => drift.byDay.map(({ day }) => day)))].sort();
  return (
    <Card title={t('drift')}>
      <p className="pb-2 text-[0.9rem] text-soft">
        {t('driftText')}{' '}
        <button type="button" className={LINK} onClick={() => setByDay(!byDay)}>
          {t(byDay ? 'driftTenths' : 'driftDays')}
        </button>
      </p>
      {byDay ? (
        <Table
          who={who}
          heads={days}
          figureOf={({ drift }, i) => drift.byDay.find(({ day }) => day === days[i])?.severity}
        />
      ) : (
        <Table
          who={who}
          heads={Array.from({ length: 10 }, (_, i) => t('tenth', { number: i + 1 }))}
          figureOf={({ drift }, i) => drift.byTenth[i]}
        />
      )}
    </Card>
  );
}
