import { useEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { showMarks } from '../../core/marks';
import type { OwnTest, OwnTests } from '../../core/ownTests/api';
import { showLength } from '../../core/timing/pace';
import { get, post } from '../api/client';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { Pill, type Tone } from '../ui/Pill';
import { showDay, showMoment } from '../ui/times';
import { useAction, useLoaded } from '../ui/useAsync';
import { t } from './words';
import { PageHeading } from '../ui/PageHeading';

/** How often the page looks whether something has changed. */
const LOOK_AGAIN_MS = 30_000;

const TONES: Record<OwnTest['state'], Tone> = {
  running: 'care',
  open: 'good',
  later: 'plain',
  'being marked': 'care',
  result: 'good',
  over: 'plain',
};

const attemptsLeft = ({ state, attemptsUsed }: OwnTest): boolean => state === 'open' && attemptsUsed > 0;

/** When it is, how long it takes, and what it needs. */
function factsOf(test: OwnTest): string {
  const { state, opensAt, closesAt, lengthMs, camera, handedInAt } = test;
  if (state === 'over') return t('overText', { when: showMoment(closesAt) });
  const past = (state === 'being marked' || state === 'result') && handedInAt !== null;
  const when =
    state === 'later'
      ? t('windowText', { from: showMoment(opensAt), to: showMoment(closesAt) })
      : past
        ? t('handedIn', { when: showMoment(handedInAt) })
        : t('untilText', { when: showMoment(closesAt) });
  return [...(past ? [] : [showLength(lengthMs)]), when, ...(camera && !past ? [t('camera')] : [])].join(
    ' · ',
  );
}

/** What is said of attempts and results. */
function stateOf(test: OwnTest): string {
  const { state, attemptsUsed, attemptsAllowed, marks, resultBy } = test;
  const said: string[] = [];
  if (state === 'open' && attemptsAllowed > 1)
    said.push(t('attempt', { number: attemptsUsed + 1, all: attemptsAllowed }));
  if (marks) said.push(t('marks', { marks: showMarks(marks.hundredths), all: showMarks(marks.of) }));
  if (state === 'being marked') said.push(t('resultBy', { day: showDay(resultBy) }));
  return said.join(' ');
}

const FIRST =
  'inline-flex min-h-11 items-center rounded-control bg-kelp px-3.5 font-semibold text-on hover:bg-kelp-deep';
const PLAIN =
  'inline-flex min-h-11 items-center rounded-control border border-line bg-card px-3.5 hover:border-edge';

function wordsOf(test: OwnTest): string {
  const { state, attemptsUsed } = test;
  if (state === 'running') return t('continue');
  if (attemptsLeft(test)) return t('startAttempt', { number: attemptsUsed + 1 });
  if (state === 'open') return t('start');
  return t(state === 'result' ? 'seeResult' : 'see');
}

/** What can be done with the test of this link. */
function Here({ test, link }: { readonly test: OwnTest; readonly link: string }) {
  const { state } = test;
  if (state === 'over') return null;
  if (state === 'later')
    return (
      <>
        <Link to={`/i/${link}?go`} className={PLAIN}>
          {t('prepare')}
        </Link>
        <a
          href="/api/arrival/test-window.ics"
          className="inline-flex min-h-11 items-center text-slate underline"
        >
          {t('calendar')}
        </a>
      </>
    );
  return (
    <Link to={`/i/${link}?go`} className={state === 'running' || state === 'open' ? FIRST : PLAIN}>
      {wordsOf(test)}
    </Link>
  );
}

/** A test that was handed in, seen by a code that is mailed: whoever holds this link may not be its person. */
function ByCode({ test }: { readonly test: OwnTest }) {
  const [sent, setSent] = useState<boolean | null>(null);
  const [code, setCode] = useState('');
  const { busy, trouble, run } = useAction();
  const field = useRef<HTMLInputElement>(null);
  const { invitation } = test;
  const ask = () =>
    run(async () => setSent((await post<{ sent: boolean }>('/tests/code', { invitation })).sent));
  const show = () =>
    run(async () => {
      const { link } = await post<{ link: string }>('/tests/code/check', { invitation, code });
      window.location.assign(`/i/${link}?go`);
    });
  useEffect(() => {
    if (sent) field.current?.focus();
  }, [sent]);
  return (
    <div className="w-full">
      <p className="mb-2 text-[0.9rem] text-soft">{t('codeText')}</p>
      {sent !== true && (
        <Button className="min-h-11" disabled={busy || sent === false} onClick={() => void ask()}>
          {t('askCode')}
        </Button>
      )}
      <p role="status" className="my-2 text-[0.9rem]">
        {trouble ?? (sent === null ? '' : t(sent ? 'codeSent' : 'codeNotSent'))}
      </p>
      {sent && (
        <form
          className="flex flex-wrap items-end gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            void show();
          }}
        >
          <label className="block">
            {t('code')}
            <input
              ref={field}
              required
              inputMode="numeric"
              autoComplete="one-time-code"
              maxLength={20}
              value={code}
              onChange={(event) => setCode(event.target.value)}
              className="mt-1 block min-h-11 w-40 rounded-control border border-edge bg-card px-3 font-mono"
            />
          </label>
          <Button type="submit" look="first" className="min-h-11" disabled={busy}>
            {t('useCode')}
          </Button>
          <Button className="min-h-11" disabled={busy} onClick={() => void ask()}>
            {t('anotherCode')}
          </Button>
        </form>
      )}
    </div>
  );
}

/** Another test that can still be taken: this link does not open it. */
function Elsewhere({ test }: { readonly test: OwnTest }) {
  const [sent, setSent] = useState<boolean | null>(null);
  const { busy, trouble, run } = useAction();
  const send = () =>
    run(async () => {
      const reply = await post<{ sent: boolean }>('/tests/link', { invitation: test.invitation });
      setSent(reply.sent);
    });
  return (
    <div className="w-full">
      <p className="mb-2 text-[0.9rem] text-soft">{t('elsewhere')}</p>
      <Button className="min-h-11" disabled={busy || sent !== null} onClick={() => void send()}>
        {t('send')}
      </Button>
      <p role="status" className="mt-2 text-[0.9rem]">
        {trouble ?? (sent === null ? '' : t(sent ? 'sent' : 'notSent'))}
      </p>
    </div>
  );
}

function Card({ test, link }: { readonly test: OwnTest; readonly link: string }) {
  const pill = test.state === 'later' ? t('later', { day: showDay(test.opensAt) }) : t(test.state);
  const said = stateOf(test);
  return (
    <li className="rounded-card border border-line bg-card px-5 py-4 desk:px-6">
      <div className="flex flex-wrap items-baseline justify-between gap-x-4 gap-y-1">
        <h2 className="font-serif text-[1.3rem] leading-tight font-semibold">{test.title}</h2>
        <Pill tone={TONES[test.state]}>{pill}</Pill>
      </div>
      <p className="mt-1 text-[0.92rem] text-soft">{factsOf(test)}</p>
      {said && <p className="mt-2">{said}</p>}
      <div className="mt-3 flex flex-wrap items-center gap-3 empty:hidden">
        {test.here ? (
          <Here test={test} link={link} />
        ) : test.state === 'result' || test.state === 'being marked' ? (
          <ByCode test={test} />
        ) : (
          test.state !== 'over' && <Elsewhere test={test} />
        )}
      </div>
    </li>
  );
}

/** A person's own page: all tests that they are invited to, and what can be done with each. */
export function YourTests({ link }: { readonly link: string }) {
  const [loaded, , replace] = useLoaded('tests', () => get<OwnTests>('/tests'));
  useEffect(() => {
    const look = () => void get<OwnTests>('/tests').then(replace, () => undefined);
    const timer = setInterval(look, LOOK_AGAIN_MS);
    window.addEventListener('focus', look);
    return () => {
      clearInterval(timer);
      window.removeEventListener('focus', look);
    };
  }, [replace]);
  if (loaded.state === 'loading') return <p className="text-soft">{t('loading')}</p>;
  if (loaded.state === 'trouble') return <Notice tone="trouble">{loaded.message}</Notice>;
  const { name, reference, tests } = loaded.value;
  return (
    <div className="mx-auto max-w-[760px]">
      <PageHeading className="font-serif text-[1.9rem] leading-tight font-semibold">{t('title')}</PageHeading>
      <p className="mb-5 text-soft">
        {name} · {reference}
      </p>
      <ul className="space-y-3.5">
        {tests.map((test) => (
          <Card key={test.invitation} test={test} link={link} />
        ))}
      </ul>
    </div>
  );
}
