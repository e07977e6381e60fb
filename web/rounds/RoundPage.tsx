import { Link, useParams } from 'react-router';
import { showMarks } from '../../core/marks';
import type { InvitedRow, RoundDetail } from '../../core/rounds/api';
import { get, post } from '../api/client';
import { Confirm } from '../ui/Confirm';
import { Pill } from '../ui/Pill';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { showShort } from '../ui/times';
import { useLoaded } from '../ui/useAsync';
import { InviteForm } from './InviteForm';
import { RoundState } from './Rounds';
import { t } from './words';

function where(row: InvitedRow, zone: string) {
  if (row.handedInAt !== null) return t('in', { when: showShort(row.handedInAt, zone) });
  if (row.startedAt !== null) return <b>{t('writing', { until: showShort(row.deadlineAt!, zone) })}</b>;
  return <span className="text-soft">{t('notBegun')}</span>;
}

function Facts({ round, onChange }: { round: RoundDetail; onChange: (round: RoundDetail) => void }) {
  const release = async () => onChange(await post<RoundDetail>(`/rounds/${round.id}/release`));
  return (
    <div className="mb-4 flex flex-wrap items-center gap-x-6 gap-y-2">
      <RoundState round={round} />
      <p>
        {showShort(round.opensAt, round.timeZone)} – {showShort(round.closesAt, round.timeZone)}{' '}
        <span className="text-soft">{t('zone', { zone: round.timeZone })}</span>
      </p>
      <Link to={`/staff/papers/${round.paper}`} className="text-slate underline underline-offset-4">
        {t('seePaper')}
      </Link>
      <span className="flex-1" />
      {round.mayRelease ? (
        <Confirm
          act={t('release')}
          title={t('releaseTitle', { title: round.title })}
          text={t('releaseText', { count: round.handedIn })}
          keep={t('releaseKeep')}
          onAct={release}
        />
      ) : (
        <p className="text-[0.9rem] text-soft">
          {round.releasedAt === null
            ? t('releaseWait')
            : t('releasedOn', { when: showShort(round.releasedAt, round.timeZone) })}
        </p>
      )}
    </div>
  );
}

export function RoundPage() {
  const { id = '' } = useParams();
  const [loaded, reload, replace] = useLoaded(`round ${id}`, () => get<RoundDetail>(`/rounds/${id}`));
  const round = loaded.state === 'here' ? loaded.value : null;
  return (
    <StaffPage
      title={round?.title ?? t('round')}
      aside={round && <InviteForm round={round.id} onInvited={reload} />}
      loaded={loaded}
    >
      {(value) => (
        <>
          <Facts round={value} onChange={replace} />
          <StaffTable
            rows={value.invitedRows}
            keyOf={(r) => r.id}
            empty={t('noInvited')}
            columns={[
              {
                head: t('candidate'),
                cell: (r) => (
                  <>
                    <b>{r.name}</b>
                    <br />
                    <span className="text-[0.85rem] text-soft">{r.email}</span>
                  </>
                ),
              },
              { head: t('reference'), cell: (r) => r.reference },
              {
                head: t('extraTime'),
                cell: (r) => (r.extraPercent ? `${r.extraPercent} %` : ''),
                right: true,
              },
              { head: t('progress'), cell: (r) => where(r, value.timeZone) },
              {
                head: t('notes'),
                cell: (r) =>
                  r.notes.map((note) => (
                    <Pill key={note} tone="care">
                      {note}
                    </Pill>
                  )),
              },
              { head: t('marks'), cell: (r) => (r.total === null ? '' : showMarks(r.total)), right: true },
            ]}
          />
        </>
      )}
    </StaffPage>
  );
}
