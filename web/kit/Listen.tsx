import { Square, Volume2 } from 'lucide-react';
import { useEffect, useRef, useState } from 'react';
import { words } from '../words';
import { deviceVoice, localVoice, simulatedVoice } from './voices';

const t = words('listen', { listen: 'Listen: {{text}}', stop: 'Stop reading: {{text}}' });

/** Reads one short text aloud and does nothing else: an option is not chosen by listening to it. */
export function Listen({ text }: { readonly text: string }) {
  const [reading, setReading] = useState(false);
  const stop = useRef<() => void>(() => undefined);
  useEffect(() => () => stop.current(), []);
  const toggle = () => {
    stop.current();
    stop.current = () => undefined;
    setReading(!reading);
    if (reading) return;
    const voice = localVoice('en');
    stop.current = (voice ? deviceVoice(voice) : simulatedVoice).speak(text, 1, {
      onWord: () => undefined,
      onEnd: () => setReading(false),
    });
  };
  const Icon = reading ? Square : Volume2;
  return (
    <button
      type="button"
      aria-label={t(reading ? 'stop' : 'listen', { text })}
      title={t(reading ? 'stop' : 'listen', { text })}
      onClick={toggle}
      className={`grid size-11 flex-none place-items-center rounded-control hover:text-ink ${reading ? 'text-kelp' : 'text-soft'}`}
    >
      <Icon aria-hidden className="size-5" />
    </button>
  );
}
