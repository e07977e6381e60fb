import { useState } from 'react';
import type { MarkedCredit } from '../../core/marking/api';
import type { Override } from '../../core/marking/mark';
import { showMarks } from '../../core/marks';
import { ComponentNotes } from '../annotations/ComponentNotes';
import { Button } from '../ui/Button';
import { say } from '../words';
import { t } from './words';

interface Props {
  readonly credits: readonly MarkedCredit[];
  readonly overrides: Readonly<Record<string, Override>>;
  readonly onOverride: (component: string, override: Override | null) => void;
}

interface FormProps {
  readonly credit: MarkedCredit;
  readonly onDone: (override: Override | null) => void;
}

function OverrideForm({ credit, onDone }: FormProps) {
  const [marks, setMarks] = useState(String(credit.hundredths / 100));
  const [reason, setReason] = useState('');
  const hundredths = Math.round(Number(marks.replace(',', '.')) * 100);
  const possible =
    marks.trim() !== '' && hundredths >= 0 && hundredths <= credit.of && reason.trim().length > 1;
  return (
    <form
      className="mt-1 flex flex-wrap items-end gap-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (possible) onDone({ hundredths, reason: reason.trim() });
      }}
    >
      <label className="text-[0.85rem]">
        {t('overrideMarks', { all: showMarks(credit.of) })}
        <input
          inputMode="decimal"
          value={marks}
          onChange={(event) => setMarks(event.target.value)}
          className="mt-0.5 block min-h-9 w-20 rounded-control border border-edge bg-card px-2"
        />
      </label>
      <label className="min-w-40 flex-1 text-[0.85rem]">
        {t('overrideReason')}
        <input
          value={reason}
          maxLength={1000}
          onChange={(event) => setReason(event.target.value)}
          className="mt-0.5 block min-h-9 w-full rounded-control border border-edge bg-card px-2"
        />
      </label>
      <Button disabled={!possible} onClick={() => onDone({ hundredths, reason: reason.trim() })}>
        {t('override')}
      </Button>
      <Button look="quiet" onClick={() => onDone(null)}>
        {t('cancel')}
      </Button>
    </form>
  );
}

/** What the machine gave the rest of the part, with its reasons; a person can set it right, with a reason. */
export function Credits({ credits, overrides, onOverride }: Props) {
  const [open, setOpen] = useState<string | null>(null);
  if (credits.length === 0) return null;
  return (
    <section aria-label={t('byMachine')} className="mt-3 text-[0.92rem]">
      <h2 className="font-semibold">{t('byMachine')}</h2>
      <ul className="divide-y divide-line/70">
        {credits.map((credit) => {
          const { component, hundredths, of, reasons, name, overridden } = credit;
          const change = overrides[component];
          return (
            <li key={component} className="py-1.5">
              <div className="flex items-baseline gap-3">
                <span className="min-w-0 flex-1">
                  {name && <b>{say(name)} </b>}
                  <span className="text-soft">{reasons.map(say).join(' ')}</span>
                  {(change ?? overridden) && (
                    <span className="block text-marigold">
                      {change ? t('overriddenNow', { reason: change.reason }) : t('overridden')}
                    </span>
                  )}
                </span>
                <span className="whitespace-nowrap">
                  {showMarks(change?.hundredths ?? hundredths)}{' '}
                  <span className="text-soft">/ {showMarks(of)}</span>
                </span>
                <ComponentNotes
                  component={component}
                  label={t('noteOnCredit', { name: name ? say(name) : t('wholePart') })}
                />
                {open !== component && (
                  <button
                    type="button"
                    onClick={() => setOpen(component)}
                    className="text-[0.85rem] text-slate underline underline-offset-4"
                  >
                    {t('setRight')}
                  </button>
                )}
              </div>
              {open === component && (
                <OverrideForm
                  credit={credit}
                  onDone={(override) => {
                    onOverride(component, override);
                    setOpen(null);
                  }}
                />
              )}
            </li>
          );
        })}
      </ul>
    </section>
  );
}
