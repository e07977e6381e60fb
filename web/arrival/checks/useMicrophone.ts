import { useEffect, useState } from 'react';

const LOOK_MS = 200;
/** Root mean square at which the level shows 100. */
const LOUD = 0.3;

/** What stands in for a microphone in the demo and in tests; null is the real one. */
export type MicrophoneStandIn = 'tone' | 'silent' | null;

function standIn(context: AudioContext, kind: 'tone' | 'silent'): AudioNode {
  const gain = new GainNode(context, { gain: kind === 'tone' ? 0.2 : 0 });
  const tone = new OscillatorNode(context, { frequency: 220 });
  tone.start();
  return tone.connect(gain);
}

/** The loudest level (0..100) heard since it was opened; null until it is open, or where it cannot be. */
export function useMicrophone(open: boolean, kind: MicrophoneStandIn): number | null {
  const [level, setLevel] = useState<number | null>(null);
  useEffect(() => {
    if (!open) return;
    const context = new AudioContext();
    let stream: MediaStream | null = null;
    let timer: ReturnType<typeof setInterval> | undefined;
    const listen = (source: AudioNode) => {
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
      if (kind) return listen(standIn(context, kind));
      stream = await navigator.mediaDevices.getUserMedia({ audio: true });
      listen(new MediaStreamAudioSourceNode(context, { mediaStream: stream }));
    };
    start().catch(() => setLevel(0));
    return () => {
      clearInterval(timer);
      stream?.getTracks().forEach((track) => track.stop());
      void context.close();
      setLevel(null);
    };
  }, [open, kind]);
  return level;
}
