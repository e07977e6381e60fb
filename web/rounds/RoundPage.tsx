import { say } from '../words';
import { Link, useNavigate, useParams } from 'react-router';
import { showMarks } from '../../core/marks';
import type { InvitedRow, RoundDetail } from '../../core/rounds/api';
import { get, post } from '../api/client';
import { Confirm } from '../ui/Confirm';
import { Pill } from '../ui/Pill';
import { FailedJobs } from '../ui/FailedJobs';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { showShort } from '../ui/times';
import { Button } from '../ui/Button';
import { useAction, useLoaded } from '../ui/useAsync';
import { InviteForm } from './InviteForm';
import { Decision } from './Decision';
import { RoundState } from './Rounds';
import { t } from './words';

function where(row: InvitedRow, zone: string) {
  if (row.handedInAt !== null) return t('in', { when: showShort(row.handedInAt, zone) });
  if (row.startedAt !== null) return <b>{t('writing', { until: showShort(row.deadlineAt!, zone) })}</b>;
  return <span className="text-soft">{t('notBegun')}</span>;
}

/** For a link that fell into other hands: the old one ends, a new letter is written. */
function NewLink({ round, row }: { readonly round: number; readonly row: InvitedRow }) {
  const navigate = useNavigate();
  const renew = async () => {
    const { letter } = await post<{ letter: number }>(`/rounds/${round}/new-link`, { invitation: row.id });
    await navigate(`/staff/outbox?letter=${letter}`);
  };
  const { name } = row;
  return (
    <Confirm
      quiet
      act={t('newLink')}
      title={t('newLinkTitle', { name })}
      text={t('newLinkText')}
      keep={t('newLinkKeep')}
      onAct={renew}
    />
  );
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
      <Link to={`/staff/watch/${round.id}`} className="text-slate underline underline-offset-4">
        {t('watchLink')}
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

/** A request to correct details, and the press that says it is done. */
function Correction({
  round,
  row,
  onSettled,
}: {
  round: number;
  row: InvitedRow;
  onSettled: (round: RoundDetail) => void;
}) {
  const { busy, run } = useAction();
  const settle = () =>
    run(async () =>
      onSettled(await post<RoundDetail>(`/rounds/${round}/correction-settled`, { invitation: row.id })),
    );
  return (
    <p className="flex flex-wrap items-center gap-2">
      {t('correction', { correction: row.correction! })}
      <Button disabled={busy} onClick={() => void settle()}>
        {t('correctionDone')}
      </Button>
    </p>
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
          <FailedJobs />
          {value.decisions.map((decision) => (
            <Decision key={decision.id} round={value} decision={decision} onDecided={replace} />
          ))}
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
                cell: (r) => (
                  <>
                    {r.extraPercent ? `${r.extraPercent} %` : ''}
                    {r.breakMinutes > 0 && (
                      <span className="block text-[0.85rem] text-soft">
                        {t('breaksOf', { minutes: r.breakMinutes })}
                      </span>
                    )}
                  </>
                ),
                right: true,
              },
              { head: t('progress'), cell: (r) => where(r, value.timeZone) },
              {
                head: t('notes'),
                cell: (r) => (
                  <>
                    {r.notes.map((note) => (
                      <Pill key={note.code} tone="care">
                        {say(note)}
                      </Pill>
                    ))}
                    {r.correction !== null && <Correction round={value.id} row={r} onSettled={replace} />}
                    <NewLink round={value.id} row={r} />
                  </>
                ),
              },
              { head: t('marks'), cell: (r) => (r.total === null ? '' : showMarks(r.total)), right: true },
            ]}
          />
        </>
      )}
    </StaffPage>
  );
}
