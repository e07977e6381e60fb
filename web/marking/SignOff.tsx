import { Link } from 'react-router';
import type { SignOffState } from '../../core/marking/api';
import { showMarks } from '../../core/marks';
import { post } from '../api/client';
import { Confirm } from '../ui/Confirm';
import { Pill } from '../ui/Pill';
import { StaffPage, StaffTable } from '../ui/StaffPage';
import { FailedJobs } from '../staff/FailedJobs';
import { LIST_MS, useFetched } from '../staff/queries';
import { t } from './words';

function State({ state, onSigned }: { state: SignOffState; onSigned: () => void }) {
  if (state.releasedAt !== null) return <Pill tone="good">{t('released')}</Pill>;
  if (state.signedOffAt !== null) return <Pill tone="good">{t('signed')}</Pill>;
  if (state.handedIn === 0) return <Pill>{t('openRound')}</Pill>;
  if (state.toDecide > 0)
    return <span className="text-marigold">{t('decides', { count: state.toDecide })}</span>;
  const open = state.running + state.beingScored + state.unmarked;
  if (open > 0) return <span className="text-soft">{t('waits', { count: open })}</span>;
  const sign = async () => {
    await post(`/marking/rounds/${state.round}/sign-off`, { seen: state.newest });
    onSigned();
  };
  return (
    <Confirm
      act={t('sign')}
      title={t('signTitle', { title: state.title })}
      text={t('signText')}
      keep={t('signKeep')}
      onAct={sign}
    />
  );
}

const isEmpty = ({ handedIn, running }: SignOffState): boolean => handedIn === 0 && running === 0;

/** Where something waits for somebody comes first, then what still runs, then what is signed off and released. */
const needOf = (state: SignOffState): number => {
  if (state.releasedAt !== null) return 3;
  if (state.signedOffAt !== null) return 2;
  return state.toDecide > 0 || state.running + state.beingScored === 0 ? 0 : 1;
};

/** What a lead sees of each round, and the act that freezes its marks; rounds that nobody has sat are folded away. */
export function SignOff() {
  const [loaded, reload] = useFetched<SignOffState[]>('/marking/rounds', undefined, LIST_MS);
  return (
    <StaffPage title={t('signOff')} loaded={loaded}>
      {(states) => {
        const empty = states.filter(isEmpty);
        const sat = states.filter((state) => !isEmpty(state)).sort((a, b) => needOf(a) - needOf(b));
        return (
          <>
            <FailedJobs />
            {(sat.length > 0 || empty.length === 0) && <RoundsTable states={sat} onSigned={reload} />}
            {empty.length > 0 && (
              <details className="mt-4">
                <summary className="min-h-9 py-1.5 text-soft">
                  {t('emptyRounds', { count: empty.length })}
                </summary>
                <RoundsTable states={empty} onSigned={reload} />
              </details>
            )}
          </>
        );
      }}
    </StaffPage>
  );
}

function RoundsTable({
  states,
  onSigned,
}: {
  readonly states: readonly SignOffState[];
  readonly onSigned: () => void;
}) {
  return (
    <StaffTable
      rows={states}
      keyOf={(s) => s.round}
      empty={t('noRounds')}
      columns={[
        {
          head: t('round'),
          cell: (s) => (
            <>
              <b className="block">{s.title}</b>
              <Link
                to={`/staff/rounds/${s.round}/answers`}
                className="text-slate underline underline-offset-4"
              >
                {t('answers')}
              </Link>
            </>
          ),
        },
        { head: t('handedIn'), cell: (s) => s.handedIn, right: true },
        { head: t('running'), cell: (s) => s.running, right: true },
        { head: t('scoring'), cell: (s) => s.beingScored, right: true },
        {
          head: t('item'),
          cell: (s) =>
            s.piles.map((p) => (
              <p key={p.target}>
                <Link
                  to={`/staff/quality/${s.round}/${p.target}`}
                  className="text-slate underline underline-offset-4"
                >
                  {t('itemLink', { number: p.itemNumber, title: p.title })}
                </Link>
                : {t('marked', { marked: p.marked, left: p.left })}
                {p.gaps > 0 && <span className="text-marigold"> · {t('gapsOpen', { count: p.gaps })}</span>}
                {p.asides > 0 && (
                  <span className="text-marigold"> · {t('asidesOpen', { count: p.asides })}</span>
                )}
                {p.signedOffAt !== null && <span className="text-kelp"> · {t('signed')}</span>}
                {p.mean !== null && (
                  <span className="text-soft">
                    {' '}
                    · {t('mean', { mean: showMarks(p.mean), all: showMarks(p.marks) })}
                  </span>
                )}
              </p>
            )),
        },
        { head: t('state'), cell: (s) => <State state={s} onSigned={onSigned} /> },
      ]}
    />
  );
}
