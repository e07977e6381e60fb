import { useState } from 'react';
import type { AssessorQuality, QualityData } from '../../core/marking/api';
import type { Estimate } from '../../core/measures/estimate';
import { Button } from '../ui/Button';
import { DialogCard } from '../ui/DialogCard';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { useAction } from '../ui/useAsync';
import { showDifference, showInterval } from './figures';
import { FIELD, LINK, type Act } from './qualityParts';
import { t } from './words';

/** How far above or below the mean of the assessors, as a point with its interval, around nothing. */
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
  return (
    <p className="flex flex-col items-start gap-y-0.5 text-[0.88rem] whitespace-nowrap">
      {(['hold', 'absence'] as const).map((path) => (
        <DialogCard
          key={path}
          open={open === path}
          onOpen={(next) => setOpen(next ? path : null)}
          trigger={
            <button type="button" className={LINK}>
              {t(path)}
            </button>
          }
          title={t(path === 'hold' ? 'holdOf' : 'absenceOf', { name: who.name })}
        >
          <form
            className="space-y-3 whitespace-normal"
            onSubmit={(event) => {
              event.preventDefault();
              void send(path, true);
            }}
          >
            <label className="block">
              {t(path === 'hold' ? 'holdWhy' : 'absenceWhy')}
              <input
                required
                minLength={2}
                value={reason}
                onChange={(event) => setReason(event.target.value)}
                className={FIELD}
              />
            </label>
            {trouble && <Notice tone="trouble">{trouble}</Notice>}
            <div className="flex justify-end gap-3">
              <Button onClick={() => setOpen(null)}>{t('cancel')}</Button>
              <Button look="first" type="submit" disabled={busy || reason.trim().length < 2}>
                {t(path)}
              </Button>
            </div>
          </form>
        </DialogCard>
      ))}
    </p>
  );
}

/** Everybody who marks the item: how far they are, how severe, and how they meet agreed marks. */
export function Assessors({ data, act }: { readonly data: QualityData; readonly act: Act }) {
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
                {who.group !== null && who.severity.value !== null && (
                  <p className="text-[0.82rem] text-soft">{t('severityGroup', { group: who.group })}</p>
                )}
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
