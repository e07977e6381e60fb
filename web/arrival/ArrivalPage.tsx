import { Suspense, useEffect, useMemo, useState, type ComponentType } from 'react';
import { Link, useNavigate, useParams, useSearchParams } from 'react-router';
import type { ArrivalView, QueuePlace } from '../../core/arrival/api';
import type { ArrivalStep } from '../../core/arrival/stage';
import { openLink } from '../api/openLink';
import { Button } from '../ui/Button';
import { RaiseHand } from '../live/RaiseHand';
import { CandidateFrame } from '../ui/CandidateFrame';
import { lazily } from '../ui/later';
import { Notice } from '../ui/Notice';
import { useLoaded } from '../ui/useAsync';
import { ArrivalContext, useArrival } from './ArrivalContext';
import { HandedIn, ReceiptCard } from './HandedIn';
import { Questionnaire } from './Questionnaire';
import { Outside } from './Outside';
import { Queue } from './Queue';
import { useArrivalLive } from './useArrivalLive';
import { Checks } from './steps/Checks';
import { Cover } from './steps/Cover';
import { Details } from './steps/Details';
import { Picture } from './steps/Picture';
import { Rules } from './steps/Rules';
import { Waiting } from './steps/Waiting';
import { Steps } from './Steps';
import { YourTests } from '../ownTests/YourTests';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

const Result = lazily(async () => (await import('../results/ResultView')).ResultView);

const STEPS: Record<ArrivalStep, ComponentType> = {
  details: Details,
  checks: Checks,
  picture: Picture,
  rules: Rules,
  waiting: Waiting,
  cover: Cover,
};

function ToDesk() {
  const { link } = useArrival();
  const navigate = useNavigate();
  useEffect(() => void navigate(`/i/${link}/desk`, { replace: true }), [link, navigate]);
  return null;
}

/** The link is open in two windows, and the test was begun in the other one: one of both may go on. */
function StartedElsewhere() {
  const { link } = useArrival();
  const navigate = useNavigate();
  return (
    <div className="mx-auto max-w-[40rem] space-y-4">
      <PageHeading className="font-serif text-[1.75rem] leading-tight font-semibold">
        {t('startedElsewhere')}
      </PageHeading>
      <p>{t('startedElsewhereText')}</p>
      <Button onClick={() => void navigate(`/i/${link}/desk`, { state: { takeOver: true } })}>
        {t('goOnHere')}
      </Button>
    </div>
  );
}

/** The result, or the sheet of one of several attempts. */
function Sheet({ attempt }: { readonly attempt: number | null }) {
  const { link, view, live } = useArrival();
  const practice = view.practice ? `/i/${link}/practice` : null;
  return (
    <Suspense>
      <Result practice={practice} attempt={attempt} home={`/i/${link}`} marked={live?.marked ?? null}>
        {view.receipt && <ReceiptCard receipt={view.receipt} />}
        <Questionnaire />
      </Result>
    </Suspense>
  );
}

/** The attempt whose sheet the address asks for; null where it asks for none that was handed in. */
function useSheetAsked(): number | null {
  const { view } = useArrival();
  const [search] = useSearchParams();
  const asked = Number(search.get('sheet'));
  return view.attempts.some(({ attempt, marks }) => attempt === asked && marks) ? asked : null;
}

/**
 * The way to the person's own page, in the frame of every page but the desk. Quiet: a phone has no room for it beside
 * *Raise a hand*, and there is one test only.
 */
function ToTests({ link, quiet }: { readonly link: string; readonly quiet: boolean }) {
  return (
    <Link
      to={`/i/${link}?tests`}
      className={`min-h-11 items-center rounded-control px-2.5 hover:bg-shade desk:inline-flex desk:px-3.5 ${quiet ? 'hidden' : 'inline-flex'}`}
    >
      {t('yourTests')}
    </Link>
  );
}

/**
 * Whether a person sees their own page first: where they have other tests, unless they come for this one or are in the
 * middle of it.
 */
function showsTests({ stage, otherTests }: ArrivalView, search: URLSearchParams): boolean {
  if (stage.at === 'running') return false;
  return search.has('tests') || (otherTests > 0 && !search.has('go') && !search.has('sheet'));
}

function StageView() {
  const { view } = useArrival();
  const { stage } = view;
  const sheet = useSheetAsked();
  switch (stage.at) {
    case 'too early':
      return <Outside over={false} />;
    case 'over':
      return <Outside over />;
    case 'running':
      return <ToDesk />;
    case 'being marked':
      return <HandedIn />;
    case 'between':
      return sheet === null ? <HandedIn /> : <Sheet attempt={sheet} />;
    case 'result':
      return <Sheet attempt={sheet} />;
    case 'arriving': {
      const Step = STEPS[stage.step];
      return (
        <Steps step={stage.step}>
          <Step />
        </Steps>
      );
    }
  }
}

/** What a personal link opens: always where the candidate is now. */
export function ArrivalPage() {
  const { link = '' } = useParams();
  const [queue, setQueue] = useState<QueuePlace | null>(null);
  const [loaded, reload, replace] = useLoaded(link, () => openLink(link, setQueue));
  const shell = useMemo(
    () => (loaded.state === 'here' ? { view: loaded.value, link, update: replace } : null),
    [loaded, link, replace],
  );
  const { live, startedElsewhere, say } = useArrivalLive(shell);
  const [search] = useSearchParams();
  const list = shell !== null && showsTests(shell.view, search);
  const helps = shell !== null && !list && shell.view.stage.at === 'arriving';
  return (
    <CandidateFrame
      organisation={shell?.view.organisation ?? null}
      tools={
        <>
          {shell && !list && <ToTests link={link} quiet={helps && shell.view.otherTests === 0} />}
          {helps && <RaiseHand live={live} onSay={say} />}
        </>
      }
    >
      {loaded.state === 'loading' &&
        (queue ? <Queue place={queue} /> : <p className="text-soft">{t('loading')}</p>)}
      {loaded.state === 'trouble' && (
        <div className="mx-auto max-w-[40rem] space-y-4">
          <Notice tone="trouble">{loaded.message}</Notice>
          <Button onClick={reload}>{t('again')}</Button>
        </div>
      )}
      {shell && (
        <ArrivalContext value={{ ...shell, live }}>
          {startedElsewhere ? <StartedElsewhere /> : list ? <YourTests link={link} /> : <StageView />}
        </ArrivalContext>
      )}
    </CandidateFrame>
  );
}
