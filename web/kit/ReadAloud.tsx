import { Pause, Play, SkipBack, SkipForward, Square } from 'lucide-react';
import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { Button } from '../ui/Button';
import { useKit } from './KitContext';
import { words } from '../words';
import { canDraw } from './drawHighlights';
import { Panel } from './Panel';
import { sentenceAt, sentencesInView, wordRange, type Sentence } from './readable';
import { figureOf, useAid } from './useAid';
import { deviceVoice, localVoice, simulatedVoice, type Voice } from './voices';

const t = words('readAloud', {
  title: 'Read aloud',
  start: 'Read from the start',
  goOn: 'Continue reading',
  pause: 'Pause',
  stop: 'Stop',
  back: 'Previous sentence',
  next: 'Next sentence',
  speed: 'Speed',
  speedIs: '{{speed}} times',
  how: 'Press a text to read from there.',
  simulated: 'This device has no voice. The words are shown one after the other without sound.',
  reading: 'Reading: {{text}}',
  ended: 'Everything has been read.',
  quiet: 'Not reading',
});

const SPEEDS = [0.6, 0.8, 1, 1.25, 1.5, 2] as const;

function mark(range: Range | null): void {
  if (!canDraw()) return;
  if (range) CSS.highlights.set('spoken', new Highlight(range));
  else CSS.highlights.delete('spoken');
}

type Phase = 'quiet' | 'reading' | 'paused' | 'ended';

/** Goes through the sentences of the page, one after the other. */
function useReader(voice: Voice, speed: number) {
  const [phase, setPhase] = useState<Phase>('quiet');
  const [now, setNow] = useState('');
  const at = useRef(0);
  const sentences = useRef<Sentence[]>([]);
  const stop = useRef<() => void>(() => undefined);
  const next = useRef<(index: number) => void>(() => undefined);
  const hush = useCallback(() => {
    stop.current();
    stop.current = () => undefined;
    mark(null);
  }, []);
  const readFrom = useCallback(
    (index: number) => {
      hush();
      const sentence = sentences.current[index];
      at.current = index;
      if (!sentence) {
        // Nothing was there to be read: then nothing has been read either.
        setPhase(index > 0 ? 'ended' : 'quiet');
        setNow('');
        return;
      }
      setPhase('reading');
      setNow(sentence.text);
      stop.current = voice.speak(sentence.text, speed, {
        onWord(start, length) {
          const range = wordRange(sentence, start, length);
          mark(range);
          range?.startContainer.parentElement?.scrollIntoView({ block: 'nearest' });
        },
        onEnd: () => next.current(index + 1),
      });
    },
    [voice, speed, hush],
  );
  useEffect(() => {
    // With the voice and speed of by then.
    next.current = readFrom;
  }, [readFrom]);
  useEffect(() => hush, [hush]);
  return {
    phase,
    now,
    start: () => {
      sentences.current = sentencesInView();
      readFrom(0);
    },
    from: (node: Node, offset: number) => {
      const found = sentencesInView();
      const index = sentenceAt(found, node, offset);
      if (index < 0) return;
      sentences.current = found;
      readFrom(index);
    },
    pause: () => {
      hush();
      setPhase('paused');
    },
    goOn: () => readFrom(at.current),
    step: (by: 1 | -1) => readFrom(Math.max(0, at.current + by)),
    stop: () => {
      hush();
      at.current = 0;
      setPhase('quiet');
      setNow('');
    },
  };
}

function useVoice(): Voice {
  const [voice, setVoice] = useState(() => localVoice('en'));
  useEffect(() => {
    if (typeof speechSynthesis === 'undefined') return undefined;
    const look = () => setVoice(localVoice('en'));
    speechSynthesis.addEventListener('voiceschanged', look);
    return () => speechSynthesis.removeEventListener('voiceschanged', look);
  }, []);
  return useMemo(() => (voice ? deviceVoice(voice) : simulatedVoice), [voice]);
}

/** Reads the question by the device's own voice and marks the spoken word; where a device has none, words are only marked. */
export function ReadAloud() {
  const { setting, set } = useAid('read-aloud');
  const speed = figureOf(setting, 'speed', 1);
  const voice = useVoice();
  const reader = useReader(voice, speed);
  const index = useKit((s) => s.index);
  const latest = useRef(reader);
  useEffect(() => {
    latest.current = reader;
  });
  useEffect(() => () => latest.current.stop(), [index]);
  useEffect(() => {
    const press = (event: MouseEvent) => {
      const target = event.target as Element | null;
      if (
        !target?.closest('[data-reading]') ||
        target.closest('button, input, textarea, label, [role=button], a, [contenteditable=true]')
      )
        return;
      const caret = document.caretRangeFromPoint(event.clientX, event.clientY);
      // A selection is no press.
      if (caret && document.getSelection()?.isCollapsed !== false)
        latest.current.from(caret.startContainer, caret.startOffset);
    };
    document.addEventListener('click', press);
    return () => document.removeEventListener('click', press);
  }, []);
  const { phase, now } = reader;
  return (
    <Panel
      id="read-aloud"
      title={t('title')}
      first={{ corner: 'right', width: 350, height: 320 }}
      least={{ width: 280, height: 200 }}
    >
      <div className="min-h-0 flex-1 space-y-2 overflow-y-auto px-3 py-2">
        <div className="flex flex-wrap gap-1.5">
          {phase === 'reading' ? (
            <Button look="first" onClick={reader.pause}>
              <Pause aria-hidden className="size-4" /> {t('pause')}
            </Button>
          ) : (
            <Button look="first" onClick={phase === 'paused' ? reader.goOn : reader.start}>
              <Play aria-hidden className="size-4" /> {t(phase === 'paused' ? 'goOn' : 'start')}
            </Button>
          )}
          <Button disabled={phase === 'quiet'} onClick={reader.stop}>
            <Square aria-hidden className="size-4" /> {t('stop')}
          </Button>
          <Button aria-label={t('back')} disabled={phase === 'quiet'} onClick={() => reader.step(-1)}>
            <SkipBack aria-hidden className="size-4" />
          </Button>
          <Button aria-label={t('next')} disabled={phase === 'quiet'} onClick={() => reader.step(1)}>
            <SkipForward aria-hidden className="size-4" />
          </Button>
        </div>
        <label className="flex items-center gap-2 text-[0.92rem]">
          {t('speed')}
          <select
            value={speed}
            onChange={(event) => set({ speed: Number(event.target.value) })}
            className="min-h-9 rounded-control border border-edge bg-card px-2"
          >
            {SPEEDS.map((one) => (
              <option key={one} value={one}>
                {t('speedIs', { speed: one })}
              </option>
            ))}
          </select>
        </label>
        <p className="line-clamp-2 text-[0.9rem]">
          {phase === 'reading' || phase === 'paused'
            ? t('reading', { text: now })
            : t(phase === 'ended' ? 'ended' : 'quiet')}
        </p>
        <p className="text-[0.88rem] text-soft">{t('how')}</p>
        {voice === simulatedVoice && <p className="text-[0.88rem] text-soft">{t('simulated')}</p>}
      </div>
    </Panel>
  );
}
