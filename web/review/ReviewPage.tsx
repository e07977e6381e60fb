import { useState, type ReactNode } from 'react';
import { Link, useParams } from 'react-router';
import type { PlainText } from '../../core/kinds/contract';
import {
  sittingVerdicts,
  weights,
  type ReviewEvent,
  type SittingReview,
  type SittingVerdict,
  type WeighedObservation,
  type Weight,
} from '../../core/observations/review';
import type { ObservationKind } from '../../core/observations/observation';
import type { StaffMember } from '../../core/rounds/api';
import { showLength } from '../../core/timing/pace';
import { post } from '../api/client';
import { useFetched } from '../staff/queries';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Pill } from '../ui/Pill';
import { showSecond } from '../ui/showSecond';
import { showDay, showMoment } from '../ui/times';
import { useAction } from '../ui/useAsync';
import { seenWords } from './seenWords';
import { t } from './words';

type Act = (path: string, body: object) => Promise<void>;

const LANES: Record<ObservationKind, 'connection' | 'desk' | 'answers'> = {
  silence: 'connection',
  'connection gap': 'connection',
  'time given back': 'connection',
  'missing-entries': 'connection',
  'second hold': 'desk',
  reload: 'desk',
  'device changed': 'desk',
  check: 'desk',
  'restored writing': 'answers',
  mismatch: 'answers',
  'out of turn': 'answers',
};
const TONES = {
  connection: 'bg-[#2f5d8c]',
  desk: 'bg-[#8a5000]',
  answers: 'bg-[#8a5000]',
  time: 'bg-kelp',
  message: 'bg-kelp',
};

const eventWords = ({ kind, minutes }: ReviewEvent) =>
  t(`event ${kind}`, { minutes: Math.round(minutes ?? 0) });

interface Bar {
  readonly from: number;
  readonly to: number;
  readonly words: string;
}

function Lane({
  name,
  bars,
  place,
}: {
  readonly name: keyof typeof TONES;
  readonly bars: readonly Bar[];
  readonly place: (at: number) => number;
}) {
  return (
    <div className="grid grid-cols-[6.5rem_1fr] items-center">
      <span className="text-[0.82rem] text-soft">{t(`lane ${name}`)}</span>
      <div className="relative h-6 border-b border-line">
        {bars.map((bar, i) => (
          <span
            key={i}
            title={bar.words}
            className={`absolute top-1.5 h-3 rounded-sm ${TONES[name]}`}
            style={{ left: `${place(bar.from)}%`, width: `max(5px, ${place(bar.to) - place(bar.from)}%)` }}
          />
        ))}
      </div>
    </div>
  );
}

/** One line of time: questions, connection, desk, messages, and a cursor that replays answers. */
function Timeline({
  data,
  at,
  onAt,
}: {
  readonly data: SittingReview;
  readonly at: number;
  readonly onAt: (at: number) => void;
}) {
  const { startedAt, closedAt } = data;
  const whole = Math.max(1, closedAt - startedAt);
  const place = (moment: number) => (100 * Math.min(whole, Math.max(0, moment - startedAt))) / whole;
  const seen = (lane: 'connection' | 'desk' | 'answers') =>
    data.observations
      .filter((one) => LANES[one.kind] === lane)
      .map(({ from, to, kind }) => ({ from, to, words: seenWords(kind) }));
  const events = (kinds: readonly ReviewEvent['kind'][]) =>
    data.events
      .filter(({ kind }) => kinds.includes(kind))
      .map((event) => ({ from: event.from, to: event.to, words: event.text || eventWords(event) }));
  return (
    <section aria-label={t('timeline')} className="rounded-card border border-line bg-card p-4">
      <div className="relative">
        <div className="grid grid-cols-[6.5rem_1fr] items-center">
          <span className="text-[0.82rem] text-soft">{t('lane question')}</span>
          <div className="relative h-8">
            {data.path.map((span, i) => (
              <span
                key={i}
                title={`${span.number} · ${span.title}`}
                className="absolute inset-y-0.5 overflow-hidden rounded border border-card bg-[#c9d1da] px-1 text-[0.8rem] leading-7 text-[#1b2733]"
                style={{ left: `${place(span.from)}%`, width: `${place(span.to) - place(span.from)}%` }}
              >
                {span.number}
              </span>
            ))}
          </div>
        </div>
        <Lane name="connection" bars={seen('connection')} place={place} />
        <Lane name="desk" bars={seen('desk')} place={place} />
        <Lane name="answers" bars={seen('answers')} place={place} />
        <Lane name="time" bars={events(['pause', 'break', 'grant', 'readmitted'])} place={place} />
        <Lane name="message" bars={events(['message'])} place={place} />
        <div aria-hidden className="pointer-events-none absolute inset-y-0 right-0 left-[6.5rem]">
          <span className="absolute inset-y-0 w-0.5 bg-ink" style={{ left: `${place(at)}%` }} />
        </div>
      </div>
      <label className="mt-2 grid grid-cols-[6.5rem_1fr] items-center text-[0.82rem] text-soft">
        {showSecond(at)}
        <input
          type="range"
          min={startedAt}
          max={closedAt}
          step={1000}
          value={at}
          aria-label={t('cursor')}
          aria-valuetext={showSecond(at)}
          onChange={(event) => onAt(Number(event.target.value))}
          className="w-full accent-kelp"
        />
      </label>
    </section>
  );
}

/** An answer as it stood at the cursor. */
function Replay({
  data,
  path,
  at,
}: {
  readonly data: SittingReview;
  readonly path: string;
  readonly at: number;
}) {
  const [target, setTarget] = useState(
    () => data.replay.toSorted((a, b) => b.times.length - a.times.length)[0]?.target ?? '',
  );
  const chosen = data.replay.find((one) => one.target === target);
  // Only where something has changed is it read anew.
  const moment = chosen?.times.filter((time) => time <= at).at(-1) ?? 0;
  const [loaded] = useFetched<PlainText>(`${path}/replay/${target || 'none/A'}/${moment}`);
  if (!chosen) return <p className="text-soft">{t('replayNone')}</p>;
  const count = chosen.times.filter((time) => time <= at).length;
  const text = loaded.state === 'here' ? loaded.value.text : '';
  return (
    <section aria-label={t('replayOf')} className="rounded-card border border-line bg-card p-4">
      <label className="text-[0.88rem]">
        {t('replayOf')}
        <select
          value={target}
          onChange={(event) => setTarget(event.target.value)}
          className="mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-2"
        >
          {data.replay.map((one) => (
            <option key={one.target} value={one.target}>
              {t('spentOn', { number: one.number, title: one.title })}
            </option>
          ))}
        </select>
      </label>
      <p className="mt-2 text-[0.88rem] text-soft">
        {t('replayAt', {
          number: chosen.number,
          title: chosen.title,
          time: showSecond(at),
          count,
          all: chosen.times.length,
        })}
      </p>
      <p
        tabIndex={0}
        role="group"
        aria-label={t('replayOf')}
        className={`mt-2 max-h-72 min-h-24 overflow-y-auto whitespace-pre-wrap ${loaded.state === 'here' && loaded.value.form === 'program' ? 'font-mono text-[0.85rem]' : 'font-serif'}`}
      >
        {text || <span className="text-soft">{t('replayEmpty')}</span>}
      </p>
    </section>
  );
}

const lengthOf = ({ from, to }: { readonly from: number; readonly to: number }) =>
  to - from < 1000 ? '' : showLength(to - from);

function Weighing({ one, act }: { readonly one: WeighedObservation; readonly act: Act }) {
  const [reason, setReason] = useState(one.reason);
  const { busy, trouble, run } = useAction();
  return (
    <div>
      <label className="block">
        {t('reason')}
        <input
          value={reason}
          maxLength={1000}
          onChange={(event) => setReason(event.target.value)}
          className="mt-1 block min-h-10 w-full rounded-control border border-edge bg-card px-3"
        />
      </label>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <div className="mt-2 flex flex-wrap gap-2">
        {weights.map((weight: Weight) => (
          <Button
            key={weight}
            look={one.weight === weight ? 'first' : 'plain'}
            aria-pressed={one.weight === weight}
            disabled={busy || reason.trim().length < 2}
            onClick={() => void run(() => act('weigh', { observation: one.id, weight, reason }))}
          >
            {t(`act ${weight}`)}
          </Button>
        ))}
      </div>
    </div>
  );
}

function Ask({ observation, act }: { readonly observation: number | null; readonly act: Act }) {
  const [question, setQuestion] = useState('');
  const { busy, trouble, run } = useAction();
  const send = () =>
    run(async () => {
      await act('ask', { observation, question });
      setQuestion('');
    });
  return (
    <details className="mt-3">
      <summary className="min-h-8 py-1 text-slate">{t('ask')}</summary>
      <label className="block">
        {t('question')}
        <textarea
          rows={2}
          maxLength={1000}
          value={question}
          onChange={(event) => setQuestion(event.target.value)}
          className="mt-1 w-full rounded-control border border-edge bg-card p-2.5"
        />
      </label>
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
      <Button disabled={busy || question.trim().length < 2} onClick={() => void send()} className="mt-1">
        {t('askAct')}
      </Button>
    </details>
  );
}

function Observations({
  data,
  chosen,
  onChoose,
}: {
  readonly data: SittingReview;
  readonly chosen: number | null;
  readonly onChoose: (one: WeighedObservation) => void;
}) {
  if (data.observations.length === 0) return <p className="text-soft">{t('none')}</p>;
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-line text-left text-[0.85rem] text-soft">
          {(['when', 'what', 'lasted', 'weighed'] as const).map((head) => (
            <th key={head} scope="col" className="px-2 py-1.5 font-semibold">
              {t(head)}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {data.observations.map((one) => (
          <tr key={one.id} className={`border-b border-line/70 ${chosen === one.id ? 'bg-shade' : ''}`}>
            <td className="px-2 py-1.5 whitespace-nowrap">{showSecond(one.from)}</td>
            <th scope="row" className="px-2 py-1.5 text-left font-normal">
              <button
                type="button"
                onClick={() => onChoose(one)}
                className="underline decoration-line underline-offset-4"
              >
                {seenWords(one.kind)}
              </button>
            </th>
            <td className="px-2 py-1.5 whitespace-nowrap">{lengthOf(one)}</td>
            <td className="px-2 py-1.5">
              {one.weight === null ? (
                '–'
              ) : (
                <Pill tone={one.weight === 'nothing to note' ? 'good' : 'care'}>
                  {t(`weight ${one.weight}`)}
                  {one.reason && `: ${one.reason}`}
                </Pill>
              )}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Decide({
  data,
  act,
  coordinates,
}: {
  readonly data: SittingReview;
  readonly act: Act;
  readonly coordinates: boolean;
}) {
  const [verdict, setVerdict] = useState<SittingVerdict>('stands');
  const [reason, setReason] = useState('');
  const { busy, trouble, run } = useAction();
  const known = data.verdict;
  return (
    <Card title={t('decide')}>
      {known && (
        <>
          <p>
            {t('verdictBy', {
              verdict: t(`verdict ${known.verdict}`),
              reason: known.reason,
              by: known.by,
              when: showMoment(known.at, data.timeZone),
            })}
          </p>
          {known.verdict === 'void' && (
            <p className={known.agreedBy ? '' : 'text-marigold'}>
              {known.agreedBy ? t('agreedBy', { name: known.agreedBy }) : t('waitsForSecond')}
            </p>
          )}
          {known.mayAgree && coordinates && (
            <Button
              look="first"
              disabled={busy}
              onClick={() => void run(() => act('agree', { id: known.id }))}
              className="my-2"
            >
              {t('agree')}
            </Button>
          )}
        </>
      )}
      {coordinates && (
        <>
          <div role="radiogroup" aria-label={t('decide')} className="flex flex-wrap gap-2 py-1">
            {sittingVerdicts.map((one) => (
              <button
                key={one}
                type="button"
                role="radio"
                aria-checked={verdict === one}
                onClick={() => setVerdict(one)}
                className={`min-h-9 rounded-control border px-3 ${verdict === one ? 'border-kelp bg-wash font-semibold' : 'border-line bg-card'}`}
              >
                {t(`verdict ${one}`)}
              </button>
            ))}
          </div>
          <label className="block">
            {t('decideReason')}
            <textarea
              rows={2}
              maxLength={1000}
              value={reason}
              onChange={(event) => setReason(event.target.value)}
              className="mt-1 w-full rounded-control border border-edge bg-card p-2.5"
            />
          </label>
          <Button
            disabled={busy || reason.trim().length < 2}
            onClick={() => void run(() => act('judge', { verdict, reason }))}
            className="mt-2"
          >
            {t('decideAct')}
          </Button>
        </>
      )}
      {trouble && <Notice tone="trouble">{trouble}</Notice>}
    </Card>
  );
}

function Card({ title, children }: { readonly title: string; readonly children: ReactNode }) {
  return (
    <section aria-label={title} className="rounded-card border border-line bg-card p-4">
      <h2 className="mb-1 font-semibold">{title}</h2>
      {children}
    </section>
  );
}

/** A sitting on one line of time, with what was observed, asked and decided. */
export function ReviewPage() {
  const { round = '', invitation = '', attempt = '0' } = useParams();
  const path = `/rounds/${round}/review/${invitation}/${attempt}`;
  const [me] = useFetched<StaffMember | null>('/me');
  const [loaded, , replace] = useFetched<SittingReview>(path);
  const [cursor, setCursor] = useState<number | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  if (loaded.state === 'loading') return <main className="p-8 text-soft">…</main>;
  if (loaded.state === 'trouble')
    return (
      <main className="p-8">
        <Notice tone="trouble">{loaded.message}</Notice>
      </main>
    );
  const data = loaded.value;
  const at = cursor ?? data.closedAt;
  const act: Act = async (name, body) => replace(await post<SittingReview>(`${path}/${name}`, body));
  const one = data.observations.find(({ id }) => id === chosen) ?? null;
  const coordinates = me.state === 'here' && me.value?.roles.includes('coordinator') === true;
  return (
    <main className="min-w-0 flex-1 space-y-4 overflow-y-auto px-7 py-4">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <h1 className="font-serif text-[1.6rem] font-semibold">{data.name}</h1>
        <p className="flex-1 text-soft">
          {t('facts', {
            reference: data.reference,
            day: showDay(data.startedAt, data.timeZone),
            used: showLength(data.usedMs),
            allowed: showLength(data.allowedMs),
          })}
        </p>
        {data.attempts.length > 1 &&
          data.attempts.map((other) => (
            <Link
              key={other.attempt}
              to={`/staff/review/${round}/${invitation}/${other.attempt}`}
              aria-current={other.attempt === data.attempt ? 'page' : undefined}
              className="text-slate underline underline-offset-4 aria-[current]:font-semibold aria-[current]:no-underline"
            >
              {t('attempt', { number: other.attempt })}
            </Link>
          ))}
        <Pill tone={data.broken === null ? 'good' : 'care'}>
          {data.broken !== null
            ? t('broken', { number: data.broken + 1 })
            : data.observations.length === 0
              ? t('noFacts')
              : t('whole', { count: data.observations.length })}
        </Pill>
      </div>
      <Timeline data={data} at={at} onAt={setCursor} />
      <div className="grid items-start gap-4 desk:grid-cols-[minmax(0,5fr)_minmax(0,3fr)]">
        <div className="min-w-0 space-y-4">
          <Card title={t('observations')}>
            <Observations
              data={data}
              chosen={chosen}
              onChoose={({ id, from }) => {
                setChosen(id);
                setCursor(Math.min(data.closedAt, Math.max(data.startedAt, from)));
              }}
            />
            {one && (
              <div className="mt-3 border-t border-line pt-3">
                <h3 className="mb-1 font-semibold">{t('weigh')}</h3>
                <Weighing key={one.id} one={one} act={act} />
              </div>
            )}
            <Ask observation={chosen} act={act} />
          </Card>
          <Replay data={data} path={path} at={at} />
        </div>
        <div className="min-w-0 space-y-4">
          <Decide data={data} act={act} coordinates={coordinates} />
          {data.explanations.length > 0 && (
            <Card title={t('asked')}>
              <ul className="space-y-2">
                {data.explanations.map((asked) => (
                  <li key={asked.id}>
                    <p className="font-semibold">{asked.question}</p>
                    <p className="whitespace-pre-wrap">
                      {asked.answer === null ? (
                        <span className="text-soft">{t('notAnswered')}</span>
                      ) : (
                        <>
                          <b>{t('candidateWrites', { name: data.name })}</b> “{asked.answer}”
                        </>
                      )}
                    </p>
                  </li>
                ))}
              </ul>
            </Card>
          )}
          <Card title={t('spent')}>
            <table className="w-full text-[0.92rem]">
              <tbody>
                {data.spent.map(({ number, title, ms }) => (
                  <tr key={number}>
                    <th scope="row" className="py-0.5 text-left font-normal">
                      {t('spentOn', { number, title })}
                    </th>
                    <td className="py-0.5 text-right whitespace-nowrap">{showLength(ms)}</td>
                  </tr>
                ))}
              </tbody>
            </table>
          </Card>
        </div>
      </div>
    </main>
  );
}
