import { say } from '../words';
import { Link, useNavigate, useParams } from 'react-router';
import { alignMarks } from '../../core/marks';
import { candidateFilters, type InvitedRow, type RoundDetail } from '../../core/rounds/api';
import { useQueryClient } from '@tanstack/react-query';
import { useMemo, useState } from 'react';
import { post } from '../api/client';
import { DataTable, type Column } from '../staff/DataTable';
import { LIST_MS, useFetched } from '../staff/queries';
import { Confirm } from '../ui/Confirm';
import { Pill } from '../ui/Pill';
import { FailedJobs } from '../staff/FailedJobs';
import { StaffPage } from '../ui/StaffPage';
import { showShort } from '../ui/times';
import { Button } from '../ui/Button';
import { useAction } from '../ui/useAsync';
import { InviteForm } from './InviteForm';
import { Experience } from './Experience';
import { Decision } from './Decision';
import { RoundState } from './Rounds';
import { t } from './words';

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

/** Candidates can practise with the real questions once the results are out; it can be taken back. */
function Practice({ round, onChange }: { round: RoundDetail; onChange: (round: RoundDetail) => void }) {
  const released = round.practiceAt !== null;
  const change = async () =>
    onChange(await post<RoundDetail>(`/rounds/${round.id}/practice`, { released: !released }));
  if (round.releasedAt === null) return null;
  return (
    <Confirm
      quiet
      act={t(released ? 'practiceClose' : 'practiceRelease')}
      title={t(released ? 'practiceCloseTitle' : 'practiceReleaseTitle')}
      text={t(released ? 'practiceCloseText' : 'practiceReleaseText')}
      keep={t('practiceKeep')}
      onAct={change}
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
      <Practice round={round} onChange={onChange} />
    </div>
  );
}

/** A request to correct details, and the press that says it is done; it can be taken back. */
function Correction({ round, row }: { readonly round: number; readonly row: InvitedRow }) {
  const client = useQueryClient();
  const { busy, run } = useAction();
  const [done, setDone] = useState(false);
  const settle = (settled: boolean) =>
    run(async () => {
      await post(`/rounds/${round}/correction-settled`, { invitation: row.id, settled });
      setDone(settled);
      await client.invalidateQueries({ queryKey: [`/rounds/${round}/candidates`] });
    });
  if (row.correction === null && !done) return null;
  return (
    <p className="flex flex-wrap items-center gap-2">
      {done ? t('correctionSettled') : t('correction', { correction: row.correction! })}
      <Button disabled={busy} onClick={() => void settle(!done)}>
        {t(done ? 'undo' : 'correctionDone')}
      </Button>
    </p>
  );
}

const columnsOf = ({ id, timeZone }: RoundDetail): readonly Column<InvitedRow>[] => [
  { id: 'name', sortable: true, cell: (r) => <b>{r.name}</b> },
  { id: 'email', sortable: true, cell: (r) => r.email },
  { id: 'reference', sortable: true, cell: (r) => r.reference },
  { id: 'extraPercent', cell: (r) => (r.extraPercent ? `${r.extraPercent} %` : ''), right: true },
  { id: 'breakMinutes', cell: (r) => r.breakMinutes || '', right: true },
  {
    id: 'startedAt',
    sortable: true,
    cell: (r) =>
      r.startedAt === null ? (
        <span className="text-soft">{t('notBegun')}</span>
      ) : (
        showShort(r.startedAt, timeZone)
      ),
  },
  {
    id: 'handedInAt',
    sortable: true,
    cell: (r) =>
      r.handedInAt !== null
        ? showShort(r.handedInAt, timeZone)
        : r.startedAt !== null && t('writing', { until: showShort(r.deadlineAt!, timeZone) }),
  },
  { id: 'total', cell: (r) => (r.total === null ? '' : alignMarks(r.total)), right: true },
  {
    id: 'notes',
    actions: true,
    cell: (r) => (
      <>
        {r.notes.map((note) => (
          <Pill key={note.code} tone="care">
            {say(note)}
          </Pill>
        ))}
        <Correction round={id} row={r} />
        <NewLink round={id} row={r} />
      </>
    ),
  },
];

const HIDDEN = ['email', 'breakMinutes'];

function Candidates({ round }: { readonly round: RoundDetail }) {
  const columns = useMemo(() => columnsOf(round), [round]);
  return (
    <DataTable
      path={`/rounds/${round.id}/candidates`}
      label={t('candidates')}
      columns={columns}
      keyOf={(r) => r.id}
      empty={t('noInvited')}
      hiddenAtFirst={HIDDEN}
      filters={candidateFilters.map((value) => ({ value, words: t(`filter ${value}`) }))}
    />
  );
}

export function RoundPage() {
  const { id = '' } = useParams();
  const client = useQueryClient();
  const [loaded, reload, replace] = useFetched<RoundDetail>(`/rounds/${id}`, undefined, LIST_MS);
  const round = loaded.state === 'here' ? loaded.value : null;
  const changed = () => {
    reload();
    void client.invalidateQueries({ queryKey: [`/rounds/${id}/candidates`] });
  };
  return (
    <StaffPage
      title={round?.title ?? t('round')}
      aside={
        round && (
          <>
            <Link to={`/staff/rounds/${id}/people`} className="text-slate underline underline-offset-4">
              {t('importPeople')}
            </Link>
            <InviteForm round={round.id} onInvited={changed} />
          </>
        )
      }
      loaded={loaded}
    >
      {(value) => (
        <>
          <Facts round={value} onChange={replace} />
          <FailedJobs />
          {value.decisions.map((decision) => (
            <Decision key={decision.id} round={value} decision={decision} onDecided={replace} />
          ))}
          <Candidates round={value} />
          {value.settings.questionnaire && <Experience round={value.id} />}
        </>
      )}
    </StaffPage>
  );
}
