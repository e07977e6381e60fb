import { Megaphone, Search } from 'lucide-react';
import { useMemo, useState } from 'react';
import { useParams } from 'react-router';
import type { WatchAct, WatchChange, WatchNews, WatchRow, WatchState, WatchView } from '../../core/watch/api';
import { applyChange, roomAt } from '../../core/watch/room';
import { post } from '../api/client';
import { useLive } from '../live/useLive';
import { Button } from '../ui/Button';
import { showSecond } from '../ui/showSecond';
import { showShort } from '../ui/times';
import { ActForm } from './ActForm';
import { CandidateRow } from './CandidateRow';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

const COUNTED: readonly WatchState[] = ['out of reach', 'waiting', 'writing', 'stopped', 'handed in'];

function Counts({ rows }: { rows: readonly WatchRow[] }) {
  const hands = rows.filter((r) => r.hand).length;
  return (
    <p className="flex flex-1 flex-wrap gap-x-6 text-soft">
      {hands > 0 && <b className="text-marigold">{t('handsUp', { count: hands })}</b>}
      {COUNTED.map((state) => {
        const count = rows.filter((r) => r.state === state).length;
        return count > 0 && <span key={state}>{t(state as 'writing', { count })}</span>;
      })}
    </p>
  );
}

const fits = (query: string) => (row: WatchRow) =>
  `${row.name} ${row.reference}`.toLowerCase().includes(query.trim().toLowerCase());

/** Rows shown at a time: who needs someone comes first, and anybody is found by name. */
const SHOWN = 200;

const merge = (before: WatchView | null, news: WatchNews): WatchView | null =>
  'whole' in news ? news.whole : before && applyChange(before, news.change);

/** One row a candidate, who needs someone first; it follows by itself. */
export function WatchRoom() {
  const { id = '' } = useParams();
  const [view, take] = useLive<WatchView, WatchNews>(`/watch/${id}`, merge);
  const [query, setQuery] = useState('');
  const rows = useMemo(() => view && roomAt(view), [view]);
  if (!view || !rows) return <main className="flex-1 p-7 text-soft">…</main>;
  const act =
    (invitation: number) => async (name: WatchAct, text: string, minutes: number, file?: string) => {
      const body = { act: name, invitation, text, minutes, file };
      take({ change: await post<WatchChange>(`/watch/${id}/acts`, body) });
    };
  const tellAll = async (text: string) => void (await post(`/watch/${id}/tell-all`, { text }));
  const found = rows.filter(fits(query));
  const heads = ['candidate', 'gone', 'up', 'heard'] as const;
  return (
    <main className="min-w-0 flex-1 overflow-y-auto px-7 py-4">
      <div className="mb-3 flex flex-wrap items-center gap-4">
        <PageHeading className="font-serif text-[1.6rem] font-semibold">{view.title}</PageHeading>
        <p className="flex-1 text-soft">
          {showSecond(view.now).slice(0, 5)} · {showShort(view.opensAt, view.timeZone)} –{' '}
          {showShort(view.closesAt, view.timeZone)}
        </p>
        {view.doorCode && (
          <p className="rounded-full bg-shade px-3.5 py-1.5 text-[0.92rem]">
            {t('doorCode')} <b className="font-mono">{view.doorCode}</b>
          </p>
        )}
        <ActForm act="message" title={t('tellAllTitle')} send={t('tellAllSend')} onAct={tellAll}>
          <Button>
            <Megaphone aria-hidden className="size-[1.1rem]" /> {t('tellAll')}
          </Button>
        </ActForm>
      </div>
      <div className="mb-3 flex flex-wrap items-center gap-4">
        <Counts rows={rows} />
        <label className="flex min-h-10 items-center gap-2 rounded-control border border-edge bg-card px-3">
          <Search aria-hidden className="size-4 text-soft" />
          <input
            aria-label={t('search')}
            placeholder={t('search')}
            value={query}
            onChange={(event) => setQuery(event.target.value)}
            className="w-44 bg-transparent outline-none placeholder:text-soft"
          />
        </label>
      </div>
      {rows.length === 0 ? (
        <p className="rounded-card border border-line bg-card px-4 py-6 text-soft">{t('nobody')}</p>
      ) : (
        <div className="overflow-x-auto rounded-card border border-line bg-card">
          <table className="w-full">
            <thead>
              <tr className="border-b border-line text-left text-[0.85rem] text-soft">
                {heads.map((head) => (
                  <th key={head} scope="col" className="px-3 py-2 font-semibold">
                    {t(head)}
                  </th>
                ))}
                <td />
              </tr>
            </thead>
            <tbody>
              {found.slice(0, SHOWN).map((row) => (
                <CandidateRow
                  key={row.invitation}
                  row={row}
                  round={view.round}
                  now={view.now}
                  onAct={act(row.invitation)}
                />
              ))}
            </tbody>
          </table>
          {found.length > SHOWN && (
            <p className="border-t border-line px-4 py-3 text-soft">
              {t('moreRows', { count: found.length - SHOWN })}
            </p>
          )}
        </div>
      )}
    </main>
  );
}
