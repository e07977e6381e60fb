import { say } from '../words';
import { Eye, Hand, WifiOff } from 'lucide-react';
import { Popover } from 'radix-ui';
import type { ReactNode } from 'react';
import type { UsedPlays, WatchAct, WatchRow, WatchState } from '../../core/watch/api';
import { timeGoneOf } from '../../core/watch/room';
import { Button } from '../ui/Button';
import { useAction } from '../ui/useAsync';
import { showSecond } from '../ui/showSecond';
import { ActForm, actWords } from './ActForm';
import { t } from './words';

const agoWords = (ms: number): string => {
  const seconds = Math.max(1, Math.round(ms / 1000));
  return seconds < 60 ? `${seconds} s` : `${Math.floor(seconds / 60)} min ${seconds % 60} s`;
};

/** Time gone above, marks done below it, on one scale. */
function Bars({ row }: { row: WatchRow }) {
  if (row.startedAt === null) return <span className="text-soft">{t('notStarted')}</span>;
  const [gone, done] = [timeGoneOf(row), row.marksDone].map((share) => Math.round(share * 100));
  const bar = (share: number, look: string) => (
    <span className="mb-[3px] block h-2 overflow-hidden rounded-full bg-line/60">
      <span className={`block h-full rounded-full ${look}`} style={{ width: `${share}%` }} />
    </span>
  );
  return (
    <span role="img" aria-label={t('bars', { gone: gone!, done: done! })} className="block max-w-80">
      {bar(gone!, 'bg-[#c9c3b4]')}
      {bar(done!, 'bg-filled')}
    </span>
  );
}

const STATES: Partial<Record<WatchState, Parameters<typeof t>[0]>> = {
  waiting: 'inWaiting',
  arriving: 'arriving',
  'not here': 'away',
  'handed in': 'handed',
};

/** The one thing that matters most about a candidate just now, in a sentence, and what is known besides. */
function WhatIsUp({ row, now }: { row: WatchRow; now: number }) {
  const lines: ReactNode[] = [];
  if (row.hand)
    lines.push(
      <span className="flex gap-2 text-marigold">
        <Hand aria-hidden className="size-4 flex-none translate-y-0.5" />
        {t('hand', { ago: agoWords(now - row.hand.at), text: row.hand.text })}
      </span>,
    );
  if (row.state === 'out of reach')
    lines.push(
      <span className="flex gap-2 text-brick">
        <WifiOff aria-hidden className="size-4 flex-none translate-y-0.5" />
        {row.heardAt === null ? t('never') : t('silent', { ago: agoWords(now - row.heardAt) })}
      </span>,
    );
  if (row.stopped) lines.push(t(row.stopped));
  const state = STATES[row.state];
  if (state) lines.push(t(state));
  lines.push(
    ...[...row.arrangements, ...row.notes].map((note, i) => (
      <span key={i} className="text-soft">
        {say(note)}
      </span>
    )),
  );
  return (
    <ul className="text-[0.92rem]">
      {lines.map((line, i) => (
        <li key={i}>{line}</li>
      ))}
    </ul>
  );
}

const WRITING: readonly WatchAct[] = ['message', 'grant', 'pause', 'note'];
const ACTS: Record<WatchState, readonly WatchAct[]> = {
  waiting: ['message', 'note'],
  writing: WRITING,
  'out of reach': WRITING,
  stopped: ['message', 'grant', 'go on', 'note'],
  arriving: ['message', 'note'],
  'not here': ['message', 'note'],
  'handed in': ['readmit', 'note'],
};

interface Props {
  readonly row: WatchRow;
  readonly round: number;
  readonly now: number;
  readonly onAct: (act: WatchAct, text: string, minutes: number, file?: string) => Promise<void>;
}

/** Whoever passed all checks is admitted by one press; for anybody else the reason is put on record. */
function Admit({ row, onAct }: Pick<Props, 'row' | 'onAct'>) {
  const { busy, trouble, run } = useAction();
  if (!row.clean) return <Act act="admit" name={row.name} onAct={onAct} look="first" />;
  return (
    <>
      {trouble && <span className="text-brick">{trouble}</span>}
      <Button look="first" disabled={busy} onClick={() => void run(() => onAct('admit', '', 0))}>
        {actWords('admit')}
      </Button>
    </>
  );
}

function Act({
  act,
  name,
  asked,
  onAct,
  look,
}: { act: WatchAct; name: string; asked?: string; look?: 'first' } & Pick<Props, 'onAct'>) {
  const words = actWords(act);
  return (
    <ActForm
      act={act}
      asked={asked}
      title={t('actOn', { act: words, name })}
      send={words}
      onAct={(text, minutes) => onAct(act, text, minutes)}
    >
      <Button look={look}>{words}</Button>
    </ActForm>
  );
}

/** A recording of which plays were used, and the way to give one back. */
function GiveBack({ plays, name, onAct }: { plays: UsedPlays; name: string } & Pick<Props, 'onAct'>) {
  const { title, granted, allowed, file } = plays;
  const words = t('give play back');
  return (
    <div className="max-w-64 border-b border-line/70 pb-1.5">
      <p className="px-1 pb-1 text-[0.88rem] text-soft">
        {t('playsUsed', { title, used: granted, allowed })}
      </p>
      <ActForm
        act="give play back"
        title={t('actOn', { act: words, name })}
        send={words}
        onAct={(text) => onAct('give play back', text, 0, file)}
      >
        <Button className="w-full">{words}</Button>
      </ActForm>
    </div>
  );
}

/** One candidate: a row, not a face. What is needed most is a button; the rest is behind one press. */
export function CandidateRow({ row, round, now, onAct }: Props) {
  // A break is the candidate's own; only a pause is ended by an invigilator.
  const acts = ACTS[row.state].filter((act) => act !== 'go on' || row.stopped === 'pause');
  const tone = row.hand ? 'bg-marigold-wash/60' : row.state === 'out of reach' ? 'bg-brick-wash/60' : '';
  return (
    <tr className={`border-b border-line/70 last:border-0 ${tone}`}>
      <th scope="row" className="px-3 py-2 text-left font-normal">
        <b>{row.name}</b>
        <span className="block text-[0.82rem] text-soft">{row.reference}</span>
      </th>
      <td className="w-[28%] px-3 py-2">
        <Bars row={row} />
        {row.deadlineAt !== null && row.state !== 'handed in' && (
          <span className="text-[0.82rem] text-soft">
            {t('until', { until: showSecond(row.deadlineAt) })}
          </span>
        )}
      </td>
      <td className="px-3 py-2">
        <WhatIsUp row={row} now={now} />
      </td>
      <td className="px-3 py-2 text-[0.88rem] text-soft">{row.heardAt && showSecond(row.heardAt)}</td>
      <td className="px-3 py-2">
        <div className="flex justify-end gap-2">
          {row.hand ? (
            <Act act="answer hand" name={row.name} asked={row.hand.text} onAct={onAct} look="first" />
          ) : (
            row.state === 'waiting' && <Admit row={row} onAct={onAct} />
          )}
          <Popover.Root>
            <Popover.Trigger asChild>
              <Button aria-label={t('more', { name: row.name })}>···</Button>
            </Popover.Trigger>
            <Popover.Portal>
              <Popover.Content
                align="end"
                sideOffset={4}
                aria-label={t('more', { name: row.name })}
                className="z-10 flex flex-col gap-1.5 rounded-card border border-line bg-card p-2.5 shadow-float"
              >
                {row.pictures.map((of) => (
                  <details key={of}>
                    <summary className="flex min-h-10 items-center gap-2 px-1">
                      <Eye aria-hidden className="size-4" />{' '}
                      {t(of === 'picture' ? 'showPicture' : 'showDocument')}
                    </summary>
                    <img
                      loading="lazy"
                      src={`/api/watch/${round}/pictures/${row.invitation}/${of}`}
                      alt={t(of, { name: row.name })}
                      className="w-56 rounded-control"
                    />
                  </details>
                ))}
                {row.state !== 'handed in' &&
                  row.plays.map((plays) => (
                    <GiveBack key={plays.file} plays={plays} name={row.name} onAct={onAct} />
                  ))}
                {acts.map((act) => (
                  <Act key={act} act={act} name={row.name} onAct={onAct} />
                ))}
              </Popover.Content>
            </Popover.Portal>
          </Popover.Root>
        </div>
      </td>
    </tr>
  );
}
