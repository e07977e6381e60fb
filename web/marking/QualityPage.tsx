import { Link, useParams } from 'react-router';
import type { QualityData } from '../../core/marking/api';
import { showMarks } from '../../core/marks';
import { messageOf, post } from '../api/client';
import { useFetched } from '../staff/queries';
import { Confirm } from '../ui/Confirm';
import { Card } from '../ui/Card';
import { NotHere } from '../ui/NotHere';
import { Pill } from '../ui/Pill';
import { showDay } from '../ui/times';
import { say } from '../words';
import { AsideAnswer, Clarify, Gaps, Settings, Standards } from './QualityActs';
import { Assessors } from './QualityAssessors';
import { Drift } from './QualityDrift';
import { Agreement, Pairs, Scatter } from './QualityFigures';
import { LINK, type Act } from './qualityParts';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

/** How an item is marked: figures by assessor and item, gaps, questions, scripts with agreed marks, and the sign-off. */
export function QualityPage() {
  const { round = '', item = '', part = '' } = useParams();
  const path = `/marking/quality/${round}/${item}/${part}`;
  const [loaded, , replace] = useFetched<QualityData>(path);
  if (loaded.state !== 'here') return <NotHere of={loaded} />;
  const data = loaded.value;
  const act: Act = async (name, body = {}) => replace(await post<QualityData>(`${path}/${name}`, body));
  const signOff = async () => {
    try {
      await act('sign-off', { seen: data.newest });
    } catch (problem) {
      throw new Error(messageOf(problem), { cause: problem });
    }
  };
  const settings = `${data.settings.doublePercent} ${data.settings.tolerance} ${data.settings.standardEvery}`;
  return (
    <main className="min-w-0 flex-1 overflow-y-auto px-7 py-4">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <div className="min-w-0 flex-1">
          <PageHeading className="font-serif text-[1.6rem] font-semibold">{t('quality')}</PageHeading>
          <p className="text-soft">
            {t('qualityOf', { round: data.roundTitle, title: data.title, marks: showMarks(data.marks) })}
          </p>
        </div>
        <Link to={`/staff/similar/${round}/${item}/${part}`} className={LINK}>
          {t('similar')}
        </Link>
        {data.signedOffAt !== null ? (
          <Pill tone="good">{t('signed')}</Pill>
        ) : (
          data.open.length === 0 && (
            <Confirm
              act={t('signItem')}
              title={t('signItemTitle', { title: data.title })}
              text={t('signText')}
              keep={t('signKeep')}
              onAct={signOff}
            />
          )
        )}
      </div>
      <p className="flex flex-wrap gap-x-6 gap-y-1 py-2 text-[0.95rem]">
        <span>{t('givenOf', { given: data.given, all: data.all })}</span>
        <span>
          {t('markedTwice', {
            share: data.scripts === 0 ? 0 : Math.round((100 * data.twice) / data.scripts),
          })}
        </span>
        {data.gaps.length > 0 && (
          <span className="text-marigold">{t('gapsOpen', { count: data.gaps.length })}</span>
        )}
        {data.asides.length > 0 && (
          <span className="text-marigold">{t('asidesOpen', { count: data.asides.length })}</span>
        )}
        {data.finishAt !== null && (
          <span className="text-soft">{t('finish', { day: showDay(data.finishAt) })}</span>
        )}
      </p>
      {data.signedOffAt === null && data.open.length > 0 && (
        <p className="pb-2 text-[0.9rem] text-soft">
          {t('beforeSignOff')} {data.open.map(say).join(' ')}
        </p>
      )}
      <div className="grid items-start gap-4 desk:grid-cols-[minmax(0,5fr)_minmax(0,3fr)]">
        <div className="min-w-0 space-y-4">
          <Assessors data={data} act={act} />
          <Drift data={data} />
          <Scatter data={data} />
          <Pairs data={data} />
          {data.asides.length > 0 && (
            <Card title={t('asides')}>
              <ul className="divide-y divide-line/70">
                {data.asides.map((aside) => (
                  <AsideAnswer key={aside.id} aside={aside} act={act} />
                ))}
              </ul>
            </Card>
          )}
          <Standards data={data} />
        </div>
        <div className="min-w-0 space-y-4">
          <Agreement data={data} />
          <Gaps data={data} />
          <Clarify data={data} act={act} />
          <Settings key={settings} data={data} act={act} />
        </div>
      </div>
    </main>
  );
}
