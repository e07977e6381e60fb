import { Volume2 } from 'lucide-react';
import { useEffect, useEffectEvent, useRef, useState } from 'react';
import { Button } from '../../ui/Button';
import { DeviceChoice } from '../DeviceChoice';
import { t } from '../words';
import type { Finding } from './runChecks';
import { useMicrophone } from './useMicrophone';

const LEAST_LEVEL = 4;
const SETTLE_MS = 900;

/** Two different digits: a repeated one might be an echo. */
function newNumber(): string {
  const first = Math.floor(Math.random() * 10);
  return `${first}${(first + 1 + Math.floor(Math.random() * 9)) % 10}`;
}

async function speak(number: string): Promise<void> {
  for (const digit of number) {
    const sound = new Audio(`/sound/${digit}.wav`);
    const over = new Promise((done) => {
      sound.onended = done;
      sound.onerror = done;
    });
    await sound.play();
    await over;
  }
}

function findingOf(heard: boolean, level: number): Finding {
  const facts = { heard, level };
  if (!heard)
    return {
      name: 'sound',
      outcome: 'could be better',
      facts,
      words: t('soundDeaf'),
      remedy: t('soundDeafRemedy'),
    };
  if (level < LEAST_LEVEL)
    return {
      name: 'sound',
      outcome: 'could be better',
      facts,
      words: t('soundMute'),
      remedy: t('soundMuteRemedy'),
    };
  return { name: 'sound', outcome: 'good', facts, words: t('soundRight', { level }), remedy: null };
}

/** A number is spoken and has to be typed; meanwhile the microphone's level is measured. */
export function SoundCheck({ onFinding }: { onFinding: (finding: Finding | null) => void }) {
  const [number, setNumber] = useState(newNumber);
  const [played, setPlayed] = useState(false);
  const [typed, setTyped] = useState('');
  const { level, devices, chosen, opened, choose } = useMicrophone(played);
  const playing = useRef(false);
  const tell = useEffectEvent(onFinding);
  const complete = played && typed.length === number.length && level !== null;
  const heard = typed === number;
  useEffect(() => {
    if (!complete) return;
    // The microphone gets a moment to pick something up before it is called silent.
    const timer = setTimeout(() => tell(findingOf(heard, level)), SETTLE_MS);
    return () => clearTimeout(timer);
  }, [complete, heard, level]);
  const play = async () => {
    if (playing.current) return;
    playing.current = true;
    setPlayed(true);
    const next = played ? newNumber() : number;
    setNumber(next);
    setTyped('');
    onFinding(null);
    await speak(next).catch(() => undefined);
    playing.current = false;
  };
  return (
    <div className="flex flex-wrap items-center gap-3 pb-4 desk:pl-[2.35rem]">
      <Button onClick={() => void play()}>
        <Volume2 aria-hidden className="size-5" /> {t('soundPlay')}
      </Button>
      <input
        aria-label={t('soundNumber')}
        inputMode="numeric"
        autoComplete="off"
        maxLength={2}
        value={typed}
        onChange={(event) => setTyped(event.target.value.replace(/\D/g, ''))}
        className="min-h-10 w-20 rounded-control border border-edge bg-card px-3 text-[1.1rem] tracking-widest"
      />
      <p className="text-[0.9rem] text-soft">{level === null ? t('soundAsk') : t('soundMic', { level })}</p>
      <div className="min-w-0 basis-full text-[0.9rem] desk:max-w-96">
        <DeviceChoice
          label={t('soundWhich')}
          devices={devices}
          chosen={chosen}
          opened={opened}
          onChoose={choose}
        />
      </div>
    </div>
  );
}
