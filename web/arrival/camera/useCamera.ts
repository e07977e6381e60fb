import { useCallback, useEffect, useRef, useState } from 'react';
import { get } from '../../api/client';
import { standInScenes, standInStream, type StandInScene } from './standIn';

const STAND_IN = 'stand-in:';

/** The drawn stand-ins, offered only where the server's configuration allows it. */
const SCENE_WORDS: Record<StandInScene, string> = {
  person: 'Drawn stand-in (demo)',
  nobody: 'Stand-in: nobody there',
  two: 'Stand-in: two people',
  covered: 'Stand-in: lens covered',
  dark: 'Stand-in: in the dark',
  frozen: 'Stand-in: frozen picture',
};
const standIns = standInScenes.map((scene) => ({ id: STAND_IN + scene, label: SCENE_WORDS[scene] }));

export type CameraTroubleCode = 'refused' | 'none' | 'busy';

export interface Camera {
  readonly stream: MediaStream | null;
  readonly trouble: CameraTroubleCode | null;
  readonly devices: readonly { readonly id: string; readonly label: string }[];
  readonly chosen: string | null;
  choose(id: string | null): void;
}

function codeOf(error: unknown): CameraTroubleCode {
  const { name } = error as { name?: string };
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'refused';
  return name === 'NotFoundError' || name === 'OverconstrainedError' ? 'none' : 'busy';
}

async function openStream(chosen: string | null): Promise<MediaStream> {
  if (chosen?.startsWith(STAND_IN)) return standInStream(chosen.slice(STAND_IN.length) as StandInScene);
  if (!navigator.mediaDevices) throw new DOMException('', 'NotFoundError');
  const size = { width: { ideal: 640 }, height: { ideal: 480 } };
  return navigator.mediaDevices.getUserMedia({
    video: chosen ? { ...size, deviceId: { exact: chosen } } : size,
  });
}

async function listCameras(): Promise<Camera['devices']> {
  const found = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  return found
    .filter((d) => d.kind === 'videoinput')
    .map((d, i) => ({ id: d.deviceId, label: d.label || `Camera ${i + 1}` }));
}

/** Opens a camera; the drawn stand-in is on the list only where the server's configuration allows it. */
export function useCamera(): Camera {
  const [stream, setStream] = useState<MediaStream | null>(null);
  const [trouble, setTrouble] = useState<CameraTroubleCode | null>(null);
  const [devices, setDevices] = useState<Camera['devices']>([]);
  const [chosen, setChosen] = useState<string | null>(null);
  const [turn, setTurn] = useState(0);
  const open = useRef<MediaStream | null>(null);
  useEffect(() => {
    let current = true;
    const stop = () => open.current?.getTracks().forEach((track) => track.stop());
    const start = async () => {
      const { standInCamera } = await get<{ standInCamera: boolean }>('/config');
      const extra = standInCamera ? standIns : [];
      try {
        const opened = await openStream(chosen);
        if (!current) return opened.getTracks().forEach((track) => track.stop());
        open.current = opened;
        setStream(opened);
        setTrouble(null);
      } catch (error) {
        if (!current) return;
        setStream(null);
        setTrouble(codeOf(error));
      }
      setDevices([...(await listCameras()), ...extra]);
    };
    void start();
    return () => {
      current = false;
      stop();
    };
  }, [chosen, turn]);
  const choose = useCallback((id: string | null) => {
    setChosen(id);
    setTurn((n) => n + 1);
  }, []);
  return { stream, trouble, devices, chosen, choose };
}
