import { Pause, Play, Volume2 } from 'lucide-react';
import { useContext, useEffect, useState } from 'react';
import { useStore } from 'zustand';
import type { AudioNode } from '../../core/documents/document';
import { RecordingsOf, type Recordings, type Sounding } from '../media/recordings';
import type { PlaysState } from '../media/plays';
import { announce } from '../ui/announce';
import { useAction } from '../ui/useAsync';
import { Button } from '../ui/Button';
import { Progress } from '../ui/Progress';
import type { NodeProps } from './nodeProps';
import { showTime } from './showTime';
import { VolumeSlider } from './VolumeSlider';
import { lengthWords, numberWord, t } from './words';

const capital = (text: string) => text.charAt(0).toLocaleUpperCase() + text.slice(1);

function playsWords({ left }: PlaysState, limit: number): string {
  const all = numberWord(limit);
  return left === 0
    ? t('playsNone', { all })
    : capital(t('playsLeft', { count: left, left: numberWord(left), all }));
}

/** Where it is; only what may be paused can be moved in. */
function Position({
  node,
  own,
  recordings,
}: {
  readonly node: AudioNode;
  readonly own: Sounding | null;
  readonly recordings: Recordings;
}) {
  const at = own?.atSeconds ?? 0;
  const all = Math.max(Math.round(node.seconds), at);
  const text = t('positionText', { at: showTime(at), all: showTime(all) });
  const name = t('position', { title: node.title });
  return (
    <div className="flex min-w-0 flex-1 basis-44 items-center gap-3">
      {node.pausing ? (
        <input
          type="range"
          min={0}
          max={all}
          step={1}
          value={Math.round(at)}
          disabled={!own}
          aria-label={name}
          aria-valuetext={text}
          onChange={(event) => recordings.seek(Number(event.target.value))}
          className="min-w-0 flex-1 accent-kelp"
        />
      ) : (
        <Progress label={name} value={at} most={all} text={text} className="min-w-0 flex-1" />
      )}
      <span aria-hidden className="text-[0.88rem] whitespace-nowrap text-soft tabular-nums">
        {showTime(at)} / {showTime(all)}
      </span>
    </div>
  );
}

/** Before the first counted play: the volume is set by a tone that costs nothing. */
function SoundCheck({ recordings }: { readonly recordings: Recordings }) {
  return (
    <div className="mt-3 rounded-control bg-wash px-3.5 py-3">
      <p className="text-[0.92rem]">{t('soundCheck')}</p>
      <div className="mt-2 flex flex-wrap items-center gap-2">
        <Button onClick={() => recordings.testSound()}>
          <Volume2 aria-hidden className="size-5" /> {t('testTone')}
        </Button>
        <Button look="first" onClick={() => recordings.heardTest()}>
          {t('heardTone')}
        </Button>
      </div>
    </div>
  );
}

function Controls({
  node,
  own,
  plays,
  recordings,
}: {
  readonly node: AudioNode;
  readonly own: Sounding | null;
  readonly plays: PlaysState | null;
  readonly recordings: Recordings;
}) {
  const elsewhere = useStore(recordings.store, (s) => s.sounding !== null && s.sounding.file !== node.file);
  if (own && node.pausing) {
    const paused = own.state === 'paused';
    const Icon = paused ? Play : Pause;
    return (
      <Button
        look="first"
        className="min-h-11"
        onClick={() => (paused ? recordings.goOnPlaying() : recordings.pause())}
      >
        <Icon aria-hidden className="size-5" /> {t(paused ? 'goOn' : 'pause')}
      </Button>
    );
  }
  const blocked = own !== null || elsewhere || (plays !== null && !plays.ready);
  return (
    <Button look="first" className="min-h-11" disabled={blocked} onClick={() => void recordings.start(node)}>
      <Play aria-hidden className="size-5" />{' '}
      {own ? t(own.state === 'starting' ? 'starting' : 'playing') : t(plays ? 'playCounted' : 'play')}
    </Button>
  );
}

/** None is left here: why it cannot be heard again, and the one who can allow it. */
function NoPlayLeft({
  node,
  ask,
  elsewhere,
}: {
  readonly node: AudioNode;
  readonly ask: Recordings['askForPlay'];
  /** Another device of this candidate holds one. */
  readonly elsewhere: boolean;
}) {
  const { busy, trouble, run } = useAction();
  const [asked, setAsked] = useState(false);
  return (
    <div className="mt-2 text-[0.92rem]">
      <p>{t(elsewhere ? 'playElsewhere' : ask ? 'noPlayText' : 'noPlayAlone')}</p>
      {ask && !asked && (
        <Button
          className="mt-2 min-h-11"
          disabled={busy}
          onClick={() =>
            void run(async () => {
              await ask(node.title);
              setAsked(true);
              announce(t('playAsked'));
            })
          }
        >
          {t('askForPlay')}
        </Button>
      )}
      <p>{trouble ?? (asked ? t('playAsked') : '')}</p>
    </div>
  );
}

/** What went wrong or is to be waited for, in words. */
function said(
  node: AudioNode,
  { plays, own, state }: { plays: PlaysState | null; own: Sounding | null; state: RecordingsTrouble },
): string | null {
  if (own) return null;
  if (state?.file === node.file) return t(`trouble ${state.what}`);
  if (plays?.broken) return t('brokenOff');
  return plays && plays.left > 0 && !plays.ready ? t('waitsPlay') : null;
}
type RecordingsTrouble = ReturnType<Recordings['store']['getState']>['trouble'];

function Player({ node, recordings }: { readonly node: AudioNode; readonly recordings: Recordings }) {
  const own = useStore(recordings.store, (s) => (s.sounding?.file === node.file ? s.sounding : null));
  const state = useStore(recordings.store, (s) => s.trouble);
  const checked = useStore(recordings.store, (s) => s.checked);
  const volume = useStore(recordings.store, (s) => s.volume);
  // Drawn again whenever the keeper of plays has news.
  useStore(recordings.store, (s) => s.told);
  useEffect(() => recordings.prepare(node.file), [recordings, node.file]);
  const plays = recordings.playsOf(node);
  const trouble = said(node, { plays, own, state });
  const toCheck = plays !== null && plays.left > 0 && !checked && !own;
  return (
    <section
      aria-label={`${t('recording')}: ${node.title}`}
      className="mb-3 rounded-card border border-line bg-card px-4 py-3.5 font-sans last:mb-0"
    >
      <h3 className="font-semibold">{node.title}</h3>
      <p role="status" className="text-[0.92rem] text-soft">
        {plays ? playsWords(plays, node.plays ?? plays.allowed) : t('anyPlays')}, {lengthWords(node.seconds)}
        {!node.pausing && <span className="block">{t('noPausing')}</span>}
      </p>
      {toCheck && <SoundCheck recordings={recordings} />}
      <div className="mt-3 flex flex-wrap items-center gap-x-4 gap-y-2">
        {!toCheck && <Controls node={node} own={own} plays={plays} recordings={recordings} />}
        {!toCheck && <Position node={node} own={own} recordings={recordings} />}
        <VolumeSlider volume={volume} onVolume={(next) => recordings.setVolume(next)} />
      </div>
      {plays && !own && (plays.left === 0 || plays.elsewhere > 0) && (
        <NoPlayLeft node={node} ask={recordings.askForPlay} elsewhere={plays.elsewhere > 0} />
      )}
      {trouble && (
        <p role="alert" className="mt-2 text-[0.92rem] text-marigold">
          {trouble}
        </p>
      )}
    </section>
  );
}

/** A recording with what of it is left to hear. */
export function AudioPlayer({ node }: NodeProps<AudioNode>) {
  const recordings = useContext(RecordingsOf);
  return recordings && <Player node={node} recordings={recordings} />;
}
