import { useCallback, useEffect, useRef, useState } from 'react';
import { asDevices, listDevices, sceneOf, type Device } from '../devices';
import { t } from '../words';
import { standInStream, type StandInScene } from './standIn';

/** The drawn stand-ins, offered only where the server's configuration allows it. */
const SCENE_WORDS: Record<StandInScene, string> = {
  person: t('standInPerson'),
  nobody: t('standInNobody'),
  two: t('standInTwo'),
  covered: t('standInCovered'),
  dark: t('standInDark'),
  frozen: t('standInFrozen'),
};
const standIns = asDevices(SCENE_WORDS);

export type CameraTroubleCode = 'refused' | 'none' | 'busy';

export interface Camera {
  readonly stream: MediaStream | null;
  readonly trouble: CameraTroubleCode | null;
  readonly devices: readonly Device[];
  readonly chosen: string | null;
  readonly choose: (id: string | null) => void;
}

function codeOf(error: unknown): CameraTroubleCode {
  const { name } = error as { name?: string };
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'refused';
  return name === 'NotFoundError' || name === 'OverconstrainedError' ? 'none' : 'busy';
}

async function openStream(chosen: string | null): Promise<MediaStream> {
  const scene = sceneOf(chosen);
  if (scene) return standInStream(scene as StandInScene);
  if (!navigator.mediaDevices) throw new DOMException('', 'NotFoundError');
  const size = { width: { ideal: 640 }, height: { ideal: 480 } };
  return navigator.mediaDevices.getUserMedia({
    video: chosen ? { ...size, deviceId: { exact: chosen } } : size,
  });
}

const CHOSEN = 'clear-sitting-camera';

/** The camera that was chosen before in this tab: at the check it is chosen once for all. */
function keptCamera(): string | null {
  try {
    return sessionStorage.getItem(CHOSEN);
  } catch {
    return null;
  }
}

function keepCamera(id: string | null): void {
  try {
    if (id === null) sessionStorage.removeItem(CHOSEN);
    else sessionStorage.setItem(CHOSEN, id);
  } catch {
    // Without storage it is chosen again.
  }
}

/** Opens a camera; the drawn stand-in is on the list only where the server's configuration allows it. */
export function useCamera(): Camera {
  const [stream, setStream] = useState<MediaStream | null>(null);
  const [trouble, setTrouble] = useState<CameraTroubleCode | null>(null);
  const [devices, setDevices] = useState<readonly Device[]>([]);
  const [chosen, setChosen] = useState<string | null>(keptCamera);
  const [turn, setTurn] = useState(0);
  const open = useRef<MediaStream | null>(null);
  useEffect(() => {
    let current = true;
    const stop = () => open.current?.getTracks().forEach((track) => track.stop());
    const start = async () => {
      try {
        const opened = await openStream(chosen);
        if (!current) return opened.getTracks().forEach((track) => track.stop());
        open.current = opened;
        setStream(opened);
        setTrouble(null);
      } catch (error) {
        if (!current) return;
        // The one of before may have been taken away since.
        if (chosen !== null && codeOf(error) === 'none') {
          keepCamera(null);
          setChosen(null);
          return;
        }
        setStream(null);
        setTrouble(codeOf(error));
      }
      setDevices(await listDevices('videoinput', (number) => t('cameraNumber', { number }), standIns));
    };
    void start();
    return () => {
      current = false;
      stop();
    };
  }, [chosen, turn]);
  const choose = useCallback((id: string | null) => {
    setChosen(id);
    keepCamera(id);
    setTurn((n) => n + 1);
  }, []);
  return { stream, trouble, devices, chosen, choose };
}
