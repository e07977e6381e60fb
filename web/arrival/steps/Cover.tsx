import { DocumentView } from '../../documents/DocumentView';
import {
  Award,
  BellRing,
  CalendarClock,
  Camera,
  CircleHelp,
  Hourglass,
  LifeBuoy,
  PenLine,
  Repeat,
  Sigma,
} from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { aidNames, type AidName } from '../../../core/kit/aids';
import type { CoverSection } from '../../../core/papers/candidatePaper';
import { showMarks } from '../../../core/marks';
import { allowedMs } from '../../../core/timing/deadline';
import { showLength } from '../../../core/timing/pace';
import { fetchDesk } from '../../desk/fetchBehind';
import { startSitting } from '../../desk/openDesk';
import type { MediaProgress } from '../../desk/fetchMedia';
import { preparePaper } from '../../desk/sealedPaper';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Notice';
import { Progress } from '../../ui/Progress';
import { showMegabytes } from '../../ui/showMegabytes';
import { showDay, showList, showMoment } from '../../ui/times';
import { useAction, useLoaded } from '../../ui/useAsync';
import { message, type Message } from '../../../core/messages/message';
import { say } from '../../words';
import { useArrival } from '../ArrivalContext';
import { StepTitle } from '../Steps';
import { t } from '../words';

function YourTime() {
  const { limitMs, extraPercent, breakMinutes } = useArrival().view.time;
  const own = allowedMs(limitMs, extraPercent);
  const why =
    extraPercent > 0
      ? t('timeExtra', {
          length: showLength(limitMs),
          extra: showLength(own - limitMs),
          percent: extraPercent,
        })
      : t('timeAll', { length: showLength(limitMs) });
  return (
    <section className="grid items-center gap-x-6 gap-y-2 rounded-card border border-line bg-card px-6 py-4 desk:grid-cols-[auto_1fr]">
      <p>
        <span className="block text-[2.1rem] leading-none font-bold whitespace-nowrap">
          {showLength(own)}
        </span>
        <span className="text-[0.85rem] text-soft">{t('yourTime')}</span>
      </p>
      <p className="text-[0.92rem]">
        {why} {breakMinutes > 0 && t('timeBreaks', { minutes: breakMinutes })} {t('timeText')}
      </p>
    </section>
  );
}

const movingIn = ({ navigation, limit }: CoverSection) =>
  `${say(message(`navigation.${navigation}`))}${limit === null ? '' : `; ${t('limit', { minutes: limit })}`}`;

const namesOf = (aids: readonly AidName[]) => aids.map((name) => say(message(`aid.${name}`))).join(', ');

/** Aids that every section has, and what each has besides. */
function useKits() {
  const { sections } = useArrival().view.cover;
  const everywhere = aidNames.filter((name) => sections.every((one) => one.aids.includes(name)));
  const besides = ({ aids }: CoverSection) => namesOf(aids.filter((name) => !everywhere.includes(name)));
  return { everywhere: [t('kitAlways'), namesOf(everywhere)].filter(Boolean).join(', '), besides };
}

/** On a narrow screen what is words stands under the section's title; figures keep columns of their own. */
function Sections() {
  const { sections } = useArrival().view.cover;
  const { everywhere, besides } = useKits();
  const heads = ['section', 'questions', 'marks', 'about', 'moving', 'kit'] as const;
  const wide = 'hidden px-2 desk:table-cell';
  return (
    <div className="my-4 overflow-x-auto" tabIndex={0} role="group" aria-label={t('section')}>
      <table className="w-full text-[0.9rem]">
        <thead>
          <tr className="border-b border-line text-left text-soft">
            {heads.map((head) => (
              <th
                key={head}
                scope="col"
                className={`py-2 font-semibold whitespace-nowrap ${head === 'moving' || head === 'kit' ? wide : 'px-2'}`}
              >
                {t(head)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {sections.map((s) => (
            <tr key={s.key} className="border-b border-line/70">
              <th scope="row" className="px-2 py-2 text-left font-normal">
                <b>{s.key}</b> {s.title}
                <span className="block text-[0.85rem] text-soft desk:hidden">{movingIn(s)}</span>
                <span className="block text-[0.85rem] text-soft empty:hidden desk:hidden">{besides(s)}</span>
              </th>
              <td className="px-2">{s.questions}</td>
              <td className="px-2">{showMarks(s.marks)}</td>
              <td className="px-2 whitespace-nowrap">{t('minutes', { count: Math.round(s.minutes) })}</td>
              <td className={wide}>{movingIn(s)}</td>
              <td className={wide}>{besides(s) || t('kitNone')}</td>
            </tr>
          ))}
        </tbody>
      </table>
      <p className="px-2 pt-2 text-[0.85rem] text-soft">{t('kitEverywhere', { aids: everywhere })}</p>
    </div>
  );
}

const GUESSING = { free: 'guessFree', within: 'guessWithin', costs: 'guessCosts' } as const;

function Facts() {
  const { cover, round } = useArrival().view;
  const bands = cover.bands.map(({ title, from }) => t('bandFrom', { title, marks: showMarks(from) }));
  const facts = [
    [Sigma, t('size', { count: cover.questions, marks: showMarks(cover.marks) })],
    [CalendarClock, t('startWindow', { from: showMoment(round.opensAt), to: showMoment(round.closesAt) })],
    [CircleHelp, t(GUESSING[cover.guessing])],
    [Camera, <Recorded key="recorded" recorded={round.recorded} />],
    [Hourglass, t('handedInItself')],
    [BellRing, t('warned', { minutes: showList(cover.warningMinutes.map(String)) })],
    [Repeat, round.attempts.map(say).join(' ')],
    ...(bands.length > 0 ? ([[Award, t('bands', { list: showList(bands) })]] as const) : []),
    ...(cover.bandsAfterwards ? ([[Award, t('bandsAfterwards')]] as const) : []),
    [
      PenLine,
      t(round.resultAtOnce ? 'resultAtOnce' : cover.peopleMark ? 'peopleRead' : 'machineReads', {
        day: showDay(round.resultBy),
      }),
    ],
    ...(round.help ? ([[LifeBuoy, t('contact', { help: round.help })]] as const) : []),
  ] as const;
  return (
    <ul className="grid gap-x-8 gap-y-2.5 text-[0.9rem] desk:grid-cols-2">
      {facts.map(([Icon, fact], at) => (
        <li key={at} className="flex gap-2.5">
          <Icon aria-hidden className="mt-0.5 size-[1.1rem] flex-none text-slate" />
          {fact}
        </li>
      ))}
    </ul>
  );
}

/** What is recorded: whether of a picture in view, the rest behind a press. The rules have shown all of it. */
function Recorded({ recorded: [picture, ...rest] }: { readonly recorded: readonly Message[] }) {
  return (
    <div>
      {picture && say(picture)}
      <details>
        <summary className="cursor-pointer text-slate">{t('recordedMore')}</summary>
        <ul className="mt-1 list-disc space-y-0.5 pl-5">
          {rest.map((one) => (
            <li key={one.code}>{say(one)}</li>
          ))}
        </ul>
      </details>
    </div>
  );
}

/** The paper on its way onto the device; leaving the page leaves off, and coming back goes on where it was. */
function usePaper() {
  const { cover } = useArrival().view;
  const [progress, setProgress] = useState<MediaProgress | null>(null);
  const leaving = useRef(new AbortController());
  useEffect(() => {
    const own = new AbortController();
    leaving.current = own;
    return () => own.abort();
  }, []);
  const [paper, retry] = useLoaded('paper', async () => {
    const aids = cover.sections.map((section) => section.aids);
    const desk = async () => {
      // What does not come is asked for again at the start.
      await import('../../desk/DeskPage').catch(() => undefined);
      await fetchDesk({ kinds: cover.kinds, aids });
    };
    const [prepared] = await Promise.all([preparePaper(cover, setProgress, leaving.current.signal), desk()]);
    return prepared;
  });
  return { paper, progress, retry };
}

/** How much of sound, films and pictures is here, in words and as a bar. */
function Fetched({ progress }: { readonly progress: MediaProgress }) {
  const { doneBytes, allBytes, waiting } = progress;
  const done = showMegabytes(doneBytes);
  const all = showMegabytes(allBytes);
  const said = t(waiting ? 'fetchWaits' : 'fetched', { done, all });
  return (
    <div className="w-full max-w-[26rem]">
      <Progress label={t('fetchingMedia')} value={doneBytes} most={allBytes} text={said} />
      <p role="status" className={`mt-1 text-[0.9rem] ${waiting ? 'text-marigold' : 'text-soft'}`}>
        {said}
      </p>
    </div>
  );
}

/** Everything before the clock starts; it starts only by the button, with the whole paper on the device. */
export function Cover() {
  const { view, link } = useArrival();
  const navigate = useNavigate();
  const { paper, progress, retry } = usePaper();
  const { busy, trouble, run } = useAction();
  const { candidate, round, attempt } = view;
  const start = () =>
    run(async () => {
      if (paper.state !== 'here') return;
      // Full screen can only be asked for by a press; whether it is given changes nothing here.
      if (view.checks.demanded.includes('full screen'))
        void document.documentElement.requestFullscreen?.().catch(() => undefined);
      await startSitting(link, paper.value);
      await navigate(`/i/${link}/desk`);
    });
  const values = {
    name: candidate.name,
    reference: candidate.reference,
    number: attempt,
    all: round.attemptsAllowed,
  };
  return (
    <>
      <StepTitle title={round.paperTitle} page={t('cover')} text={t('coverFor', values)} />
      <DocumentView document={view.cover.text} className="mt-3 mb-4 empty:hidden" />
      <YourTime />
      <Sections />
      <Facts />
      {(trouble ?? (paper.state === 'trouble' ? paper.message : null)) && (
        <div className="mt-4">
          <Notice tone="trouble">{trouble ?? (paper.state === 'trouble' ? paper.message : '')}</Notice>
        </div>
      )}
      <div className="mt-6 flex flex-wrap items-center gap-4">
        {paper.state === 'trouble' ? (
          <Button onClick={retry}>{t('again')}</Button>
        ) : (
          <Button look="first" large disabled={paper.state !== 'here' || busy} onClick={() => void start()}>
            {t(busy ? 'starting' : 'start')}
          </Button>
        )}
        {paper.state === 'loading' && progress ? (
          <Fetched progress={progress} />
        ) : (
          <p role="status" className="text-[0.9rem] text-soft">
            {paper.state === 'here' ? t('here') : paper.state === 'loading' ? t('fetching') : ''}
          </p>
        )}
      </div>
    </>
  );
}
