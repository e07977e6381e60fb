import { useEffect, useState } from 'react';
import { asDevices, listDevices, sceneOf, type Device } from '../devices';
import { t } from '../words';

const LOOK_MS = 200;
/** Root mean square at which the level shows 100. */
const LOUD = 0.3;

/** How loud a stand-in is; offered only where the server's configuration allows it. */
const SCENES: Record<string, number> = { voice: 0.2, silent: 0 };
const standIns = asDevices({ voice: t('standInVoice'), silent: t('standInSilent') });

function standIn(context: AudioContext, loudness: number): AudioNode {
  const gain = new GainNode(context, { gain: loudness });
  const tone = new OscillatorNode(context, { frequency: 220 });
  tone.start();
  return tone.connect(gain);
}

export interface Microphone {
  /** The loudest level (0..100) heard since it was opened; null until it is open. 0 where it cannot be opened. */
  readonly level: number | null;
  readonly devices: readonly Device[];
  readonly chosen: string | null;
  /** The device that is open, where it tells. */
  readonly opened: string | undefined;
  readonly choose: (id: string) => void;
}

/** A microphone, opened while `open`. */
export function useMicrophone(open: boolean): Microphone {
  const [level, setLevel] = useState<number | null>(null);
  const [devices, setDevices] = useState<readonly Device[]>([]);
  const [chosen, choose] = useState<string | null>(null);
  const [opened, setOpened] = useState<string>();
  useEffect(() => {
    let current = true;
    let context: AudioContext | null = null;
    let stream: MediaStream | null = null;
    let timer: ReturnType<typeof setInterval> | undefined;
    const list = async () => {
      const found = await listDevices('audioinput', (number) => t('soundMicrophone', { number }), standIns);
      if (current) setDevices(found);
    };
    const listen = (context: AudioContext, source: AudioNode) => {
      const analyser = new AnalyserNode(context, { fftSize: 1024 });
      source.connect(analyser);
      const samples = new Float32Array(analyser.fftSize);
      timer = setInterval(() => {
        analyser.getFloatTimeDomainData(samples);
        const rms = Math.sqrt(samples.reduce((sum, x) => sum + x * x, 0) / samples.length);
        const now = Math.min(100, Math.round((100 * rms) / LOUD));
        setLevel((before) => Math.max(before ?? 0, now));
      }, LOOK_MS);
    };
    const start = async () => {
      context = new AudioContext();
      const scene = sceneOf(chosen);
      if (scene) return listen(context, standIn(context, SCENES[scene] ?? 0));
      const audio = chosen ? { deviceId: { exact: chosen } } : true;
      stream = await navigator.mediaDevices.getUserMedia({ audio });
      if (!current) return stream.getTracks().forEach((track) => track.stop());
      setOpened(stream.getAudioTracks()[0]?.getSettings().deviceId);
      listen(context, new MediaStreamAudioSourceNode(context, { mediaStream: stream }));
    };
    const begin = open ? start().catch(() => current && setLevel(0)) : Promise.resolve();
    void begin.then(list).catch(() => undefined);
    return () => {
      current = false;
      clearInterval(timer);
      stream?.getTracks().forEach((track) => track.stop());
      void context?.close();
      setLevel(null);
    };
  }, [open, chosen]);
  return { level, devices, chosen, opened, choose };
}
