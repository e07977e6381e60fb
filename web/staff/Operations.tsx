import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useId, useState } from 'react';
import type { OperationsView, Trouble } from '../../core/health/api';
import { get, post } from '../api/client';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { showSecond } from '../ui/showSecond';
import { useAction } from '../ui/useAsync';
import { words } from '../words';

const t = words('operations', {
  'disk-full':
    'The server’s disk is full. Nothing can be saved until there is space. Answers stay on the candidates’ devices.',
  'disk-low': 'The server’s disk is nearly full. Ask the person who runs the server to free some space.',
  'database-locked':
    'Another program has locked the server’s database. Nothing can be saved until it is closed. Answers stay on the candidates’ devices.',
  'read-only':
    'The server’s folder cannot be written to. Nothing can be saved. Answers stay on the candidates’ devices.',
  'database-broken':
    'The server’s database cannot be used. Ask the person who runs the server to look at its log. Answers stay on the candidates’ devices.',
  'checkpoint-failed':
    'The server’s database is growing and cannot be tidied. Ask the person who runs the server to look at its log.',
  'jobs-failed_one': '{{count}} background task failed. The outbox and the rounds list it.',
  'jobs-failed_other': '{{count}} background tasks failed. The outbox and the rounds list them.',
  clockAhead:
    'The clock of the server’s machine jumped forward by {{by}}. The tests continue with the server’s own time ({{now}}), and no test is closed by the jump.',
  clockBehind:
    'The clock of the server’s machine jumped back by {{by}}. The tests continue with the server’s own time ({{now}}).',
  clockWhat:
    'If the machine’s clock is wrong, ask the person who runs the server to set it: this message then goes away. If the machine’s clock is right, use it: tests whose time is then over are closed.',
  clockReason: 'Reason (kept on record)',
  clockUse: 'Use the machine’s clock ({{machine}})',
  seconds: '{{count}} s',
  minutes: '{{count}} min',
  hours: '{{hours}} h {{minutes}} min',
});

const EVERY_MS = 15_000;
const PATH = '/operations';

function showLength(ms: number): string {
  const seconds = Math.round(Math.abs(ms) / 1000);
  if (seconds < 120) return t('seconds', { count: seconds });
  const minutes = Math.round(seconds / 60);
  if (minutes < 120) return t('minutes', { count: minutes });
  return t('hours', { hours: Math.floor(minutes / 60), minutes: minutes % 60 });
}

function ClockNotice({ aheadMs, serverNow }: { readonly aheadMs: number; readonly serverNow: number }) {
  const client = useQueryClient();
  const { busy, trouble, run } = useAction();
  const [reason, setReason] = useState('');
  const reasonId = useId();
  const use = () =>
    run(async () => {
      client.setQueryData([PATH], await post<OperationsView>('/operations/believe-clock', { reason }));
    });
  return (
    <Notice tone="trouble">
      <p>
        {t(aheadMs > 0 ? 'clockAhead' : 'clockBehind', {
          by: showLength(aheadMs),
          now: showSecond(serverNow),
        })}
      </p>
      <p className="mt-1">{t('clockWhat')}</p>
      <div className="mt-2 flex flex-wrap items-end gap-3 text-ink">
        <label htmlFor={reasonId} className="flex-1">
          <span className="block text-[0.85rem]">{t('clockReason')}</span>
          <input
            id={reasonId}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            className="w-full rounded-control border border-edge bg-card px-2.5 py-1.5"
          />
        </label>
        <Button disabled={busy || reason.trim().length < 3} onClick={() => void use()}>
          {t('clockUse', { machine: showSecond(serverNow + aheadMs) })}
        </Button>
      </div>
      {trouble && <p className="mt-2">{trouble}</p>}
    </Notice>
  );
}

function TroubleNotice({ trouble, serverNow }: { readonly trouble: Trouble; readonly serverNow: number }) {
  const { code, count = 0, aheadMs = 0 } = trouble;
  if (code === 'clock') return <ClockNotice aheadMs={aheadMs} serverNow={serverNow} />;
  const tone = code === 'disk-low' || code === 'jobs-failed' ? 'care' : 'trouble';
  return <Notice tone={tone}>{code === 'jobs-failed' ? t(code, { count }) : t(code)}</Notice>;
}

/** What is wrong with the server while it is, for coordinators, on every page of theirs. */
export function Operations() {
  const { data } = useQuery<OperationsView>({
    queryKey: [PATH],
    queryFn: () => get<OperationsView>(PATH),
    refetchInterval: EVERY_MS,
  });
  if (!data || data.troubles.length === 0) return null;
  return (
    <div className="no-print space-y-2 border-b border-line bg-shade px-7 py-3">
      {data.troubles.map((trouble) => (
        <TroubleNotice key={trouble.code} trouble={trouble} serverNow={data.serverNow} />
      ))}
    </div>
  );
}
