import { useCallback, useEffect, useState } from 'react';
import { Link, useParams } from 'react-router';
import { emptyDesk, type Desk } from '../../core/journal/desk';
import type { CandidatePaper } from '../../core/papers/candidatePaper';
import type { RehearsalScore, RehearsalTicket, RehearsalView } from '../../core/rehearsal/api';
import type { ResultSheet } from '../../core/results/resultSheet';
import { allowedMs, MINUTE_MS } from '../../core/timing/deadline';
import { showLength } from '../../core/timing/pace';
import { CheckList, readsAloud, useFindings, VoiceNotice } from '../arrival/steps/Checks';
import type { Finding } from '../arrival/checks/runChecks';
import { get, post } from '../api/client';
import { openLink } from '../api/openLink';
import { AtDesk } from '../desk/DeskContext';
import { DeskFrame } from '../desk/DeskFrame';
import { createDesk, type DeskSession } from '../desk/deskStore';
import { Files, rehearsalFiles } from '../media/fileSource';
import { answers } from '../kinds/answers';
import { PageBox } from '../pages/pageBox';
import { PageSourceContext } from '../pages/pageSource';
import { loadReadings, SheetBody } from '../results/SheetBody';
import { Button } from '../ui/Button';
import { CandidateFrame, useCandidateText } from '../ui/CandidateFrame';
import { Notice } from '../ui/Notice';
import { useAction, useLoaded } from '../ui/useAsync';
import { words } from '../words';
import { rehearsalDesk, type RehearsalTerms } from './rehearsalDesk';
import { PageHeading } from '../ui/PageHeading';

const t = words('rehearsal', {
  loading: 'Opening the rehearsal …',
  title: 'Rehearsal',
  text: 'You answer easy questions at the same desk as in the test. Nothing is saved, and nobody else sees your answers.',
  textChecks:
    'First your device and connection are checked. Then you answer easy questions at the same desk as in the test. Nothing is saved, and nobody else sees your answers.',
  practice: 'Practice',
  practiceText:
    'These are the questions of your test. You can answer them as often as you like. Nothing is saved, nobody else sees your answers, and your result does not change.',
  practiceDone: 'Your practice',
  timed: 'With the clock, {{length}}',
  untimed: 'Without the clock',
  scoring: 'Marking …',
  before_one: 'Marking … One program is run before yours.',
  before_other: 'Marking … {{count}} programs are run before yours.',
  doneTitle: 'Your rehearsal',
  doneText:
    'These answers were marked automatically, and nothing is saved. In the test, assessors mark your writing, and the result comes later.',
  tryAgain: 'Try again',
  device: 'Results of the checks',
  again: 'Start the rehearsal again',
  back: 'Back to my invitation',
});

type Phase =
  | { readonly at: 'checks' }
  | { readonly at: 'desk'; readonly timed: boolean }
  | { readonly at: 'scoring'; readonly given: Desk['answers']; readonly before: number }
  | { readonly at: 'done'; readonly sheet: ResultSheet };

/** Where it is asked for: of a round's own page, or behind a personal link. */
const addressOf = (round: string | undefined, practice: boolean) =>
  practice ? '/practice' : round ? `/rehearsal/${round}` : '/rehearsal';

async function load(link: string | undefined, address: string): Promise<RehearsalView> {
  if (link) await openLink(link);
  return get<RehearsalView>(address);
}

/** How long to wait before asking again how far the scoring is. */
const ASK_AGAIN_MS = 600;

const kindsOf = (paper: CandidatePaper) => paper.questions.flatMap((q) => q.parts.map((part) => part.kind));

/** Scored by the server, which keeps nothing of it: no key is ever on a candidate's device. */
async function score(
  address: string,
  answers: Desk['answers'],
  onWait: (before: number) => void,
): Promise<ResultSheet> {
  const { ticket } = await post<RehearsalTicket>(`${address}/score`, { answers });
  for (;;) {
    const state = await get<RehearsalScore>(`/rehearsal/score/${ticket}`);
    if ('sheet' in state) return state.sheet;
    onWait(state.before);
    await new Promise((resolve) => setTimeout(resolve, ASK_AGAIN_MS));
  }
}

const openRehearsal = (terms: RehearsalTerms, pages: PageBox): DeskSession =>
  createDesk({
    ...rehearsalDesk(terms),
    desk: emptyDesk,
    clock: Date,
    queuedAt: null,
    otherVersions: [],
    files: rehearsalFiles,
    pages,
    plays: null,
  });

function RehearsalDesk({
  terms,
  pages,
  onDone,
}: {
  terms: RehearsalTerms;
  pages: PageBox;
  onDone: (answers: Desk['answers']) => void;
}) {
  useCandidateText();
  const [session] = useState(() => openRehearsal(terms, pages));
  useEffect(() => {
    const stop = session.store.subscribe((state, before) => {
      if (state.receipt && !before.receipt) onDone(state.desk.answers);
    });
    return () => {
      stop();
      session.close();
    };
  }, [session, onDone]);
  return (
    <AtDesk store={session.store}>
      <DeskFrame />
    </AtDesk>
  );
}

function Device({ findings }: { findings: readonly Finding[] }) {
  if (findings.length === 0) return null;
  return (
    <section className="mt-6">
      <h2 className="font-semibold">{t('device')}</h2>
      <ul className="mt-1 list-disc space-y-0.5 pl-6">
        {findings.map(({ name, words: found, remedy }) => (
          <li key={name}>
            {found}
            {remedy && <span className="text-soft">. {remedy}</span>}
          </li>
        ))}
      </ul>
    </section>
  );
}

interface Where {
  readonly view: RehearsalView;
  readonly link: string | undefined;
  readonly address: string;
  /** With the real questions of a test that is over. */
  readonly practice: boolean;
}

function Inside({ view, link, address, practice }: Where) {
  const { paper, extraPercent } = view;
  const [phase, setPhase] = useState<Phase>({ at: 'checks' });
  const [demanded] = useState(() => view.checks);
  const [kinds] = useState(() => kindsOf(paper));
  // Pages stay in this window alone.
  const [pages] = useState(() => new PageBox(null));
  const measured = useFindings(demanded, kinds);
  const { busy, trouble, run } = useAction();
  const onDone = useCallback(
    (given: Desk['answers']) => {
      const waits = (before: number) => setPhase({ at: 'scoring', given, before });
      waits(0);
      void run(async () => {
        const sheet = await score(address, given, waits);
        await loadReadings(sheet);
        setPhase({ at: 'done', sheet });
      });
    },
    [address, run],
  );
  const begin = (timed: boolean) =>
    run(async () => {
      await answers.load(kinds);
      setPhase({ at: 'desk', timed });
    });
  if (phase.at === 'desk')
    return (
      <RehearsalDesk terms={{ paper, extraPercent, timed: phase.timed }} pages={pages} onDone={onDone} />
    );
  const back = link && (
    <Link to={`/i/${link}?go`} className="text-slate underline underline-offset-4">
      {t('back')}
    </Link>
  );
  const choices = (
    <div className="mt-5 flex flex-wrap items-center gap-3">
      <Button look="first" className="min-h-11" disabled={busy} onClick={() => void begin(true)}>
        {t('timed', { length: showLength(allowedMs(paper.minutes * MINUTE_MS, extraPercent)) })}
      </Button>
      <Button className="min-h-11" disabled={busy} onClick={() => void begin(false)}>
        {t('untimed')}
      </Button>
      {back}
    </div>
  );
  const done = phase.at === 'done';
  return (
    <CandidateFrame organisation={view.organisation}>
      <div className={`mx-auto ${done ? 'max-w-[1010px]' : 'max-w-[720px]'}`}>
        <PageHeading className="font-serif text-[1.75rem] leading-tight font-semibold">
          {t(practice ? (done ? 'practiceDone' : 'practice') : done ? 'doneTitle' : 'title')}
        </PageHeading>
        <p className="mt-1 mb-5 text-soft">
          {t(done ? 'doneText' : practice ? 'practiceText' : demanded.length > 0 ? 'textChecks' : 'text')}
        </p>
        {phase.at === 'scoring' && busy && (
          <p role="status">{phase.before > 0 ? t('before', { count: phase.before }) : t('scoring')}</p>
        )}
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        {phase.at === 'scoring' && !busy && (
          <Button look="first" className="mt-4 min-h-11" onClick={() => onDone(phase.given)}>
            {t('tryAgain')}
          </Button>
        )}
        {phase.at === 'checks' && demanded.length > 0 && <CheckList {...measured} demanded={demanded} />}
        {phase.at === 'checks' && !practice && readsAloud(paper) && <VoiceNotice />}
        {done && (
          <Files value={rehearsalFiles}>
            <PageSourceContext value={pages}>
              <SheetBody sheet={phase.sheet} />
            </PageSourceContext>
          </Files>
        )}
        {done && <Device findings={Object.values(measured.findings)} />}
        {choices}
      </div>
    </CandidateFrame>
  );
}

/** Practice at the same desk, from a personal link or from the round's own page where the round allows it. */
export function RehearsalPage({ practice = false }: { readonly practice?: boolean }) {
  const { link, round } = useParams();
  const address = addressOf(round, practice);
  const [loaded] = useLoaded(`${address} ${link}`, () => load(link, address));
  if (loaded.state === 'here')
    return <Inside view={loaded.value} link={link} address={address} practice={practice} />;
  return (
    <CandidateFrame organisation={null}>
      {loaded.state === 'loading' ? (
        <p className="text-soft">{t('loading')}</p>
      ) : (
        <Notice tone="trouble">{loaded.message}</Notice>
      )}
    </CandidateFrame>
  );
}

/** The real questions of a test that is over, once they are released. */
export const PracticePage = () => <RehearsalPage practice />;
