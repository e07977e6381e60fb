import { Captions, Maximize2, Minimize2, Pause, Play } from 'lucide-react';
import { useContext, useEffect, useRef, useState } from 'react';
import type { VideoNode } from '../../core/documents/document';
import { useFile } from '../media/fileSource';
import { InView } from '../media/inView';
import { Button } from '../ui/Button';
import type { NodeProps } from './nodeProps';
import { showTime } from './showTime';
import { VolumeSlider } from './VolumeSlider';
import { lengthWords, t } from './words';

const SPEEDS = [0.5, 0.75, 1, 1.25, 1.5] as const;

interface Film {
  readonly playing: boolean;
  readonly at: number;
  readonly length: number;
}

/** What the film does, as its element tells it. */
function useFilm(video: React.RefObject<HTMLVideoElement | null>, seconds: number): Film {
  const [film, setFilm] = useState<Film>({ playing: false, at: 0, length: seconds });
  useEffect(() => {
    const element = video.current;
    if (!element) return;
    const tell = () =>
      setFilm({
        playing: !element.paused && !element.ended,
        at: element.currentTime,
        length: Number.isFinite(element.duration) ? element.duration : seconds,
      });
    const events = ['play', 'pause', 'ended', 'timeupdate', 'seeked', 'loadedmetadata'];
    for (const name of events) element.addEventListener(name, tell);
    return () => {
      for (const name of events) element.removeEventListener(name, tell);
    };
  }, [video, seconds]);
  return film;
}

/** What can be done with the film beside playing it. */
interface Acts {
  readonly seek: (seconds: number) => void;
  readonly setSpeed: (speed: number) => void;
  readonly setVolume: (volume: number) => void;
  readonly showCaptions: (shown: boolean) => void;
}

function Time({ acts, film, title }: { readonly acts: Acts; readonly film: Film; readonly title: string }) {
  return (
    <div className="flex min-w-0 flex-1 basis-44 items-center gap-3">
      <input
        type="range"
        min={0}
        max={film.length}
        step={0.5}
        // On its steps, as the browser has it: between two of them the keys lose their way.
        value={Math.round(film.at * 2) / 2}
        aria-label={t('position', { title })}
        aria-valuetext={t('positionText', { at: showTime(film.at), all: showTime(film.length) })}
        onChange={(event) => acts.seek(Number(event.target.value))}
        className="min-w-0 flex-1 accent-kelp"
      />
      <span aria-hidden className="text-[0.88rem] whitespace-nowrap text-soft tabular-nums">
        {showTime(film.at)} / {showTime(film.length)}
      </span>
    </div>
  );
}

function Settings({ acts, captions }: { readonly acts: Acts; readonly captions: boolean }) {
  const [shown, setShown] = useState(true);
  const [volume, setVolume] = useState(1);
  return (
    <>
      {captions && (
        <Button
          look="quiet"
          onClick={() => {
            acts.showCaptions(!shown);
            setShown(!shown);
          }}
        >
          <Captions aria-hidden className="size-5" /> {t(shown ? 'captionsOff' : 'captionsOn')}
        </Button>
      )}
      <label className="flex min-h-10 items-center gap-2 text-[0.88rem]">
        {t('speed')}
        <select
          defaultValue={1}
          onChange={(event) => acts.setSpeed(Number(event.target.value))}
          className="min-h-9 rounded-control border border-edge bg-card px-2"
        >
          {SPEEDS.map((speed) => (
            <option key={speed} value={speed}>
              {speed}×
            </option>
          ))}
        </select>
      </label>
      <VolumeSlider
        volume={volume}
        onVolume={(next) => {
          setVolume(next);
          acts.setVolume(next);
        }}
      />
    </>
  );
}

function Screen({ node, address }: { readonly node: VideoNode; readonly address: string }) {
  const video = useRef<HTMLVideoElement>(null);
  const film = useFilm(video, node.seconds);
  const captions = useFile(node.captions ?? '', 'text/vtt');
  const [large, setLarge] = useState(false);
  const acts: Acts = {
    seek: (seconds) => {
      video.current!.currentTime = seconds;
    },
    setSpeed: (speed) => {
      video.current!.playbackRate = speed;
    },
    setVolume: (volume) => {
      video.current!.volume = volume;
    },
    showCaptions: (shown) => {
      const track = video.current!.textTracks[0];
      if (track) track.mode = shown ? 'showing' : 'hidden';
    },
  };
  const press = () => void (film.playing ? video.current!.pause() : video.current!.play());
  const inView = useContext(InView);
  useEffect(() => {
    if (!inView) video.current?.pause();
  }, [inView]);
  useEffect(() => {
    if (!large) return;
    const press = (event: KeyboardEvent) => event.key === 'Escape' && setLarge(false);
    document.addEventListener('keydown', press);
    return () => document.removeEventListener('keydown', press);
  }, [large]);
  const Icon = film.playing ? Pause : Play;
  const Size = large ? Minimize2 : Maximize2;
  return (
    // Over the page, not the browser's full screen: the clock and the way back stay one key away.
    <div
      className={
        large
          ? 'fixed inset-2 z-40 flex flex-col rounded-card border border-line bg-card p-3 shadow-float'
          : ''
      }
    >
      <video
        ref={video}
        src={address}
        aria-label={`${node.title}. ${node.description}`}
        playsInline
        preload="auto"
        onClick={press}
        className={`w-full rounded-control bg-ink ${large ? 'min-h-0 flex-1' : 'max-h-[24rem]'}`}
      >
        <track
          default
          kind="captions"
          label={t('captions')}
          src={captions.is === 'here' ? captions.address : undefined}
        />
      </video>
      <div className="mt-2 flex flex-wrap items-center gap-x-4 gap-y-1">
        <Button look="first" className="min-h-11" onClick={press}>
          <Icon aria-hidden className="size-5" /> {t(film.playing ? 'pause' : 'play')}
        </Button>
        <Time acts={acts} film={film} title={node.title} />
        <Settings acts={acts} captions={captions.is === 'here'} />
        <Button look="quiet" onClick={() => setLarge(!large)}>
          <Size aria-hidden className="size-5" /> {t(large ? 'close' : 'enlarge')}
        </Button>
      </div>
    </div>
  );
}

/** A film with captions, which can be paused, wound, slowed and opened large. */
export function VideoPlayer({ node }: NodeProps<VideoNode>) {
  const found = useFile(node.file);
  return (
    <section
      aria-label={`${t('video')}: ${node.title}`}
      className="mb-3 rounded-card border border-line bg-card px-4 py-3.5 font-sans last:mb-0"
    >
      <h3 className="mb-2 font-semibold">
        {node.title} <span className="font-normal text-soft">· {lengthWords(node.seconds)}</span>
      </h3>
      {found.is === 'here' && <Screen node={node} address={found.address} />}
      {found.is === 'missing' && <p className="text-marigold">{t('fileMissing')}</p>}
      <details className="mt-1 text-[0.92rem]">
        <summary className="min-h-9 py-1.5 text-slate">{t('videoSeen')}</summary>
        <p>{node.description}</p>
      </details>
    </section>
  );
}
