import { useState } from 'react';
import { useNavigate, useParams } from 'react-router';
import type { LeadScript } from '../../core/marking/api';
import { standardUses, type StandardUse } from '../../core/marking/mark';
import { marksGiven, type MarksGiven } from '../../core/marking/marksGiven';
import { showMarks, sumMarks } from '../../core/marks';
import { get, post } from '../api/client';
import { readings } from '../kinds/readings';
import { useFetched } from '../staff/queries';
import { Button } from '../ui/Button';
import { NotHere } from '../ui/NotHere';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { LeadScriptView } from './LeadScriptView';
import { RubricPanel } from './RubricPanel';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

/** Records agreed marks of a script with their reasons: to practise on, or to be slipped in unseen. */
export function StandardPage() {
  const { round = '', item = '', part = '', script = '' } = useParams();
  const path = `/marking/quality/${round}/${item}/${part}`;
  const navigate = useNavigate();
  const [use, setUse] = useState<StandardUse>('unseen');
  const [given, setGiven] = useState<MarksGiven>({});
  const [reason, setReason] = useState('');
  const { busy, trouble, run } = useAction();
  const [loaded] = useFetched(`${path}/scripts/${script}`, async () => {
    const data = await get<LeadScript>(`${path}/scripts/${script}`);
    await readings.load([data.kind]);
    return data;
  });
  if (loaded.state !== 'here') return <NotHere of={loaded} />;
  const data = loaded.value;
  const mark = marksGiven(data.components, given);
  const ready = mark.missing.length === 0 && reason.trim().length > 1 && !busy;
  const keep = () =>
    run(async () => {
      await post(`${path}/standards`, { script, use, given, comment: '', reason: reason.trim() });
      await navigate(`/staff/quality/${round}/${item}/${part}`);
    });
  return (
    <main className="flex min-w-0 flex-1 flex-col">
      <header className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-line px-6 py-2.5">
        <PageHeading className="font-semibold">{t('recordAgreed')}</PageHeading>
        <p className="text-soft">{t('script', { code: data.script })}</p>
      </header>
      <div className="flex min-h-0 flex-1">
        <LeadScriptView data={data} />
        <aside
          aria-label={t('agreed')}
          className="w-[26rem] flex-none space-y-4 overflow-y-auto border-l border-line px-5 py-4"
        >
          <fieldset>
            <legend className="font-semibold">{t('standardUse')}</legend>
            {standardUses.map((one) => (
              <label key={one} className="flex min-h-8 items-center gap-2">
                <input type="radio" name="use" checked={use === one} onChange={() => setUse(one)} />
                {t(`useText ${one}`)}
              </label>
            ))}
          </fieldset>
          <RubricPanel
            components={data.components}
            given={given}
            active={null}
            typed=""
            onActive={() => undefined}
            onGive={(key, value) => {
              const { [key]: _, ...others } = given;
              setGiven(value === undefined ? others : { ...others, [key]: value });
            }}
          />
          <LongText label={t('standardReason')} value={reason} onChange={setReason} rows={3} />
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
          <div className="flex items-center justify-between gap-3">
            <p className="text-soft">
              <b className="text-[1.5rem] text-ink">
                {mark.marks.length === 0 ? '–' : showMarks(sumMarks(mark.marks.map((m) => m.hundredths)))}
              </b>{' '}
              {t('total', { all: showMarks(sumMarks(data.components.map((c) => c.of))) })}
            </p>
            <Button look="first" disabled={!ready} onClick={() => void keep()}>
              {t('keepAgreed')}
            </Button>
          </div>
        </aside>
      </div>
    </main>
  );
}
