import { useState } from 'react';
import type { BandsView } from '../../core/corrections/api';
import type { Band } from '../../core/results/bands';
import { showMarks } from '../../core/marks';
import { post } from '../api/client';
import { useFetched } from '../staff/queries';
import { Button } from '../ui/Button';
import { DialogActs, DialogCard } from '../ui/DialogCard';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { t } from './words';

const FIELD = 'mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3';

interface Row {
  readonly title: string;
  readonly from: string;
}

const rowOf = ({ title, from }: Band): Row => ({ title, from: String(from / 100) });

/** The bands that rows say; null where they say none that can be. */
function bandsOf(rows: readonly Row[], of: number): Band[] | null {
  const bands = rows.map(({ title, from }) => ({
    title: title.trim(),
    from: from.trim() === '' ? NaN : Math.round(Number(from) * 100),
  }));
  const froms = new Set(bands.map(({ from }) => from));
  const good = bands.every(({ title, from }) => title !== '' && from >= 0 && from <= of);
  return good && froms.size === bands.length ? bands : null;
}

function Form({
  path,
  view,
  onDone,
}: {
  readonly path: string;
  readonly view: BandsView;
  readonly onDone: () => void;
}) {
  const [rows, setRows] = useState<readonly Row[]>(view.last.toSorted((a, b) => b.from - a.from).map(rowOf));
  const [reason, setReason] = useState('');
  const { busy, trouble, run } = useAction();
  const bands = bandsOf(rows, view.of);
  const change = (at: number, to: Partial<Row>) =>
    setRows(rows.map((row, i) => (i === at ? { ...row, ...to } : row)));
  const save = () =>
    run(async () => {
      await post(path, { bands, reason });
      onDone();
    });
  return (
    <div className="space-y-3">
      <p>{t('bandsOf', { of: showMarks(view.of) })}</p>
      {rows.map((row, i) => (
        <div key={i} className="flex items-end gap-3">
          <label className="flex-1">
            {t('bandTitle')}
            <input
              className={FIELD}
              value={row.title}
              onChange={(event) => change(i, { title: event.target.value })}
            />
          </label>
          <label className="w-28">
            {t('bandBegins')}
            <input
              className={FIELD}
              inputMode="decimal"
              value={row.from}
              onChange={(event) => change(i, { from: event.target.value })}
            />
          </label>
          <button
            type="button"
            className="min-h-10 text-slate underline underline-offset-4"
            onClick={() => setRows(rows.filter((_, k) => k !== i))}
          >
            {t('removeBand', { title: row.title || String(i + 1) })}
          </button>
        </div>
      ))}
      <button
        type="button"
        className="min-h-9 text-slate underline underline-offset-4"
        onClick={() => setRows([...rows, { title: '', from: '' }])}
      >
        {t('addBand')}
      </button>
      {bands === null && <p className="text-marigold">{t('bandsWrong', { of: showMarks(view.of) })}</p>}
      <LongText label={t('bandsReason')} value={reason} onChange={setReason} />
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <DialogActs
        keep={t('keep')}
        act={t('saveBands')}
        disabled={busy || bands === null || reason.trim().length < 3}
        onAct={() => void save()}
      />
    </div>
  );
}

/** The bands of a round, and the form in which a lead sets them. */
export function Bands({ round }: { readonly round: string }) {
  const path = `/rounds/${round}/bands`;
  const [loaded, reload] = useFetched<BandsView>(path);
  const [open, setOpen] = useState(false);
  if (loaded.state === 'loading') return null;
  if (loaded.state === 'trouble') return <Notice tone="trouble">{loaded.message}</Notice>;
  const view = loaded.value;
  const done = () => {
    setOpen(false);
    reload();
  };
  const names = view.bands
    ?.toSorted((a, b) => b.from - a.from)
    .map(({ title, from }) => t('bandFrom', { title, from: showMarks(from) }));
  return (
    <section
      aria-label={t('bands')}
      className="mb-4 flex flex-wrap items-center gap-x-5 gap-y-2 rounded-card border border-line bg-card px-5 py-3"
    >
      <h2 className="font-semibold">{t('bands')}</h2>
      <p className={`min-w-0 flex-1 ${names ? '' : 'text-marigold'}`}>
        {!names ? t('bandsOpen') : names.length === 0 ? t('noBands') : names.join(' · ')}{' '}
        <span className="text-soft">{t('bandsOf', { of: showMarks(view.of) })}</span>
      </p>
      {view.open ? (
        <DialogCard
          open={open}
          onOpen={setOpen}
          trigger={<Button>{t('setBands')}</Button>}
          title={t('setBands')}
        >
          <Form path={path} view={view} onDone={done} />
        </DialogCard>
      ) : (
        <p className="text-[0.9rem] text-soft">{t('bandsFixed')}</p>
      )}
    </section>
  );
}
