import { useState } from 'react';
import { Link, useParams } from 'react-router';
import type { SittingReview } from '../../core/observations/review';
import type { StaffMember } from '../../core/rounds/api';
import { showLength } from '../../core/timing/pace';
import { post } from '../api/client';
import { useFetched } from '../staff/queries';
import { Card } from '../ui/Card';
import { NotHere } from '../ui/NotHere';
import { Pill } from '../ui/Pill';
import { showDay } from '../ui/times';
import type { Act } from './act';
import { Decide } from './Decide';
import { Ask, Observations, Weighing } from './Observed';
import { Replay, Timeline } from './Timeline';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

/** A sitting on one line of time, with what was observed, asked and decided. */
export function ReviewPage() {
  const { round = '', invitation = '', attempt = '0' } = useParams();
  const path = `/rounds/${round}/review/${invitation}/${attempt}`;
  const [me] = useFetched<StaffMember | null>('/me');
  const [loaded, , replace] = useFetched<SittingReview>(path);
  const [cursor, setCursor] = useState<number | null>(null);
  const [chosen, setChosen] = useState<number | null>(null);
  if (loaded.state !== 'here') return <NotHere of={loaded} />;
  const data = loaded.value;
  const at = cursor ?? data.closedAt;
  const act: Act = async (name, body) => replace(await post<SittingReview>(`${path}/${name}`, body));
  const one = data.observations.find(({ id }) => id === chosen) ?? null;
  const coordinates = me.state === 'here' && me.value?.roles.includes('coordinator') === true;
  return (
    <main className="min-w-0 flex-1 space-y-4 overflow-y-auto px-7 py-4">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1">
        <PageHeading className="font-serif text-[1.6rem] font-semibold">{data.name}</PageHeading>
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
          <Replay data={data} path={path} at={at} onAt={setCursor} />
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
