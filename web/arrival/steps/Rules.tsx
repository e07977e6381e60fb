import { useState } from 'react';
import type { ArrivalView } from '../../../core/arrival/api';
import { post } from '../../api/client';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Notice';
import { DocumentView } from '../../documents/DocumentView';
import { useAction } from '../../ui/useAsync';
import { useArrival } from '../ArrivalContext';
import { StepTitle } from '../Steps';
import { say } from '../../words';
import { t } from '../words';

export function Rules() {
  const { view, update } = useArrival();
  const { version, text, statements } = view.rules;
  const [accepted, setAccepted] = useState<readonly string[]>([]);
  const { busy, trouble, run } = useAction();
  const all = statements.every((s) => accepted.includes(s.key));
  const toggle = (key: string) =>
    setAccepted((keys) => (keys.includes(key) ? keys.filter((k) => k !== key) : [...keys, key]));
  const accept = () =>
    run(async () => update(await post<ArrivalView>('/arrival/rules', { version, accepted })));
  return (
    <>
      <StepTitle title={t('rulesTitle')} />
      <DocumentView
        document={text}
        className="mt-4 rounded-card border border-line bg-card px-6 py-5 font-serif text-[1.03rem]"
      />
      <section className="mt-4">
        <h2 className="font-semibold">{t('recorded')}</h2>
        <ul className="mt-1 list-disc space-y-0.5 pl-6 text-[0.92rem]">
          {view.round.recorded.map((one) => (
            <li key={one.code}>{say(one)}</li>
          ))}
        </ul>
      </section>
      <ul className="mt-4 space-y-1">
        {statements.map(({ key, text: words }) => (
          <li key={key}>
            <label className="flex min-h-11 cursor-pointer items-center gap-3">
              <input
                type="checkbox"
                checked={accepted.includes(key)}
                onChange={() => toggle(key)}
                className="size-5 flex-none accent-kelp"
              />
              {words}
            </label>
          </li>
        ))}
      </ul>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <div className="mt-4 flex flex-wrap items-center gap-4">
        <Button look="first" className="min-h-11" disabled={!all || busy} onClick={() => void accept()}>
          {t('rulesAccept')}
        </Button>
        {!all && <p className="text-[0.9rem] text-soft">{t('rulesOpen')}</p>}
      </div>
    </>
  );
}
