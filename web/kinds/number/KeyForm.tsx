import { useState } from 'react';
import type { AcceptedFigure, NumberAsked, NumberKey } from '../../../core/kinds/number/content';
import type { KeyFormProps } from '../keyFormProps';
import { t } from '../shared/keyFormWords';

const FIELD = 'mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3';

type Row = { readonly figure: string; readonly percent: string; readonly note: string };

const rowOf = ({ figure, percent, note }: AcceptedFigure): Row => ({
  figure,
  percent: String(percent),
  note,
});

/** Which numbers earn marks, each with its share, and how near is near enough. */
export function KeyForm({ content: { key }, onKey }: KeyFormProps<NumberAsked, NumberKey>) {
  const [rows, setRows] = useState<readonly Row[]>(key.accepted.map(rowOf));
  const [within, setWithin] = useState(key.tolerance?.within ?? '');
  const say = (next: readonly Row[], near: string) => {
    setRows(next);
    setWithin(near);
    const complete = next.every(({ figure, percent }) => figure.trim() !== '' && percent.trim() !== '');
    if (!complete || (key.tolerance && near.trim() === '')) return onKey(null);
    const accepted = next.map(({ figure, percent, note }) => ({
      figure: figure.trim(),
      percent: Number(percent),
      note,
    }));
    onKey({ ...key, accepted, tolerance: key.tolerance && { ...key.tolerance, within: near.trim() } });
  };
  const change = (at: number, to: Partial<Row>) =>
    say(
      rows.map((row, i) => (i === at ? { ...row, ...to } : row)),
      within,
    );
  return (
    <fieldset className="space-y-3">
      <legend className="pb-1 font-semibold">{t('figures')}</legend>
      {rows.map((row, i) => (
        <div key={i} className="flex items-end gap-3">
          <label className="flex-1">
            {t('figure')}
            <input
              className={FIELD}
              value={row.figure}
              onChange={(event) => change(i, { figure: event.target.value })}
            />
          </label>
          <label className="w-40">
            {t('share')}
            <input
              className={FIELD}
              type="number"
              min={1}
              max={100}
              value={row.percent}
              onChange={(event) => change(i, { percent: event.target.value })}
            />
          </label>
          {rows.length > 1 && (
            <button
              type="button"
              className="min-h-10 text-slate underline underline-offset-4"
              onClick={() =>
                say(
                  rows.filter((_, k) => k !== i),
                  within,
                )
              }
            >
              {t('removeFigure', { figure: row.figure || String(i + 1) })}
            </button>
          )}
        </div>
      ))}
      <button
        type="button"
        className="min-h-9 text-slate underline underline-offset-4"
        onClick={() => say([...rows, { figure: '', percent: '100', note: '' }], within)}
      >
        {t('addFigure')}
      </button>
      {key.tolerance && (
        <label className="block w-56">
          {t('within')}
          <input className={FIELD} value={within} onChange={(event) => say(rows, event.target.value)} />
        </label>
      )}
    </fieldset>
  );
}
