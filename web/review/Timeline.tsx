import { useState } from 'react';
import type { PlainText } from '../../core/kinds/contract';
import type { ObservationKind } from '../../core/observations/observation';
import type { ReviewEvent, SittingReview } from '../../core/observations/review';
import { useFetched } from '../staff/queries';
import { showSecond } from '../ui/showSecond';
import { seenWords } from './seenWords';
import { Versions } from './Versions';
import { t } from './words';

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
export function Timeline({
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

/** An answer as it stood at the cursor, and how it came about. */
export function Replay({
  data,
  path,
  at,
  onAt,
}: {
  readonly data: SittingReview;
  readonly path: string;
  readonly at: number;
  readonly onAt: (at: number) => void;
}) {
  const [target, setTarget] = useState(
    () => data.replay.toSorted((a, b) => b.times.length - a.times.length)[0]?.target ?? '',
  );
  const chosen = data.replay.find((one) => one.target === target);
  // Only where something has changed is it read again.
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
      <Versions path={path} target={target} onAt={onAt} />
    </section>
  );
}
