import { useState } from 'react';
import { Link } from 'react-router';
import type { AsideRow, QualityData } from '../../core/marking/api';
import { showMarks } from '../../core/marks';
import { Button } from '../ui/Button';
import { Card } from '../ui/Card';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { FIELD, LINK, type Act } from './qualityParts';
import { t } from './words';

/** Responses whose two marks are too far apart. */
export function Gaps({ data }: { readonly data: QualityData }) {
  return (
    <Card title={t('gaps')}>
      {data.gaps.length === 0 && <p className="text-soft">{t('noGaps')}</p>}
      <ul className="divide-y divide-line/70">
        {data.gaps.map(({ id, script, first, second }) => (
          <li key={id} className="flex items-center gap-4 py-1.5">
            <span className="flex-1 font-mono">{script}</span>
            <span>{t('gapMarks', { first: showMarks(first), second: showMarks(second) })}</span>
            <Link
              to={`/staff/gaps/${data.round}/${id}`}
              aria-label={t('settleScript', { script })}
              className={LINK}
            >
              {t('settle')}
            </Link>
          </li>
        ))}
      </ul>
    </Card>
  );
}

/** A script that an assessor set aside, and the answer to it. */
export function AsideAnswer({ aside, act }: { readonly aside: AsideRow; readonly act: Act }) {
  const [answer, setAnswer] = useState('');
  const { busy, trouble, run } = useAction();
  return (
    <li className="py-2">
      <p>
        <span className="font-mono">{aside.script}</span> · {aside.assessor} ·{' '}
        <b>{t(`aside ${aside.reason}`)}</b>
      </p>
      {aside.note && <p className="text-soft">“{aside.note}”</p>}
      <form
        className="mt-1 flex gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          void run(() => act('answer', { id: aside.id, answer }));
        }}
      >
        <input
          value={answer}
          required
          minLength={2}
          maxLength={1000}
          aria-label={t('answerTo', { script: aside.script })}
          onChange={(event) => setAnswer(event.target.value)}
          className="min-h-10 min-w-0 flex-1 rounded-control border border-edge bg-card px-3"
        />
        <button
          type="submit"
          disabled={busy}
          className="rounded-control border border-line bg-card px-3.5 hover:border-edge"
        >
          {t('answerAct')}
        </button>
      </form>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
    </li>
  );
}

/** What was added to the mark scheme, and a field to add more. */
export function Clarify({ data, act }: { readonly data: QualityData; readonly act: Act }) {
  const [text, setText] = useState('');
  const { busy, trouble, run } = useAction();
  const add = () =>
    run(async () => {
      await act('clarify', { text });
      setText('');
    });
  return (
    <Card title={t('clarifications')}>
      <ul className="list-disc pl-5">
        {data.clarifications.map((one) => (
          <li key={one.id} className="whitespace-pre-wrap">
            {one.text}
          </li>
        ))}
      </ul>
      {data.signedOffAt === null && (
        <>
          <label className="block pt-1">
            {t('clarifyLabel')}
            <textarea
              rows={2}
              maxLength={2000}
              value={text}
              onChange={(event) => setText(event.target.value)}
              className={`${FIELD} py-2`}
            />
          </label>
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
          <Button disabled={busy || text.trim().length < 2} onClick={() => void add()} className="mt-2">
            {t('clarifyAct')}
          </Button>
        </>
      )}
    </Card>
  );
}

/** How the item is shared out, and by how much two marks may differ. */
export function Settings({ data, act }: { readonly data: QualityData; readonly act: Act }) {
  const { settings } = data;
  const [double, setDouble] = useState(String(settings.doublePercent));
  const [tolerance, setTolerance] = useState(String(settings.tolerance / 100));
  const [every, setEvery] = useState(String(settings.standardEvery));
  const { busy, trouble, run } = useAction();
  const body = {
    doublePercent: Number(double),
    tolerance: Math.round(Number(tolerance.replace(',', '.')) * 100),
    standardEvery: Number(every),
  };
  const fields = [
    ['doubleField', double, setDouble, 0, 100],
    ['toleranceField', tolerance, setTolerance, 0, data.marks / 100],
    ['everyField', every, setEvery, 2, 1000],
  ] as const;
  return (
    <Card title={t('howMarked')}>
      <form
        className="grid gap-3"
        onSubmit={(event) => {
          event.preventDefault();
          void run(() => act('settings', body));
        }}
      >
        {fields.map(([name, value, set, min, max]) => (
          <label key={name} className="block text-[0.92rem]">
            {t(name)}
            <input
              type="number"
              step="any"
              min={min}
              max={max}
              required
              value={value}
              onChange={(event) => set(event.target.value)}
              className={FIELD}
            />
          </label>
        ))}
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <button
          type="submit"
          disabled={busy || data.signedOffAt !== null}
          className="min-h-10 rounded-control border border-line bg-card px-3.5 hover:border-edge disabled:text-soft"
        >
          {t('saveSettings')}
        </button>
      </form>
    </Card>
  );
}

/** Scripts with agreed marks, and the choice of another. */
export function Standards({ data }: { readonly data: QualityData }) {
  const path = `/staff/standards/${data.round}/${data.target}`;
  const free = data.candidates.filter(({ script }) => data.standards.every((one) => one.script !== script));
  const [script, setScript] = useState('');
  const chosen = script || free[0]?.script;
  return (
    <Card title={t('standards')}>
      {data.standards.length === 0 && <p className="text-soft">{t('noStandards')}</p>}
      <ul className="divide-y divide-line/70">
        {data.standards.map((one) => (
          <li key={one.id} className="py-1.5">
            <span className="font-mono">{one.script}</span> · {t(`use ${one.use}`)} ·{' '}
            {t('agreedMarks', { marks: showMarks(one.agreed) })} · {t('markedTimes', { count: one.marked })}
            <span className="block text-[0.88rem] text-soft">{one.reason}</span>
          </li>
        ))}
      </ul>
      {data.signedOffAt === null && chosen && (
        <p className="mt-2 flex flex-wrap items-center gap-2">
          <select
            aria-label={t('standardScript')}
            value={chosen}
            onChange={(event) => setScript(event.target.value)}
            className="min-h-10 rounded-control border border-edge bg-card px-2"
          >
            {free.map((one) => (
              <option key={one.script} value={one.script}>
                {one.marked ? t('scriptMarked', { script: one.script }) : one.script}
              </option>
            ))}
          </select>
          <Link to={`${path}/${chosen}`} className={LINK}>
            {t('recordAgreed')}
          </Link>
        </p>
      )}
    </Card>
  );
}
