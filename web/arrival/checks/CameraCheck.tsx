import { useEffect, useEffectEvent, useMemo, useRef } from 'react';
import { CameraChoice } from '../camera/CameraChoice';
import { CameraView } from '../camera/CameraView';
import { useCamera } from '../camera/useCamera';
import { useLook, type Look } from '../camera/useLook';
import { t } from '../words';
import type { Finding } from './runChecks';

function findingOf(seen: Look | null, code: string | null, modelTrouble: string | null): Finding | null {
  if (code) {
    const key = `camera${code.replace(/^./, (c) => c.toUpperCase())}` as
      | 'cameraRefused'
      | 'cameraNone'
      | 'cameraBusy';
    return {
      name: 'camera',
      outcome: 'not working',
      facts: { trouble: code },
      words: t(key),
      remedy: t(`${key}Remedy`),
    };
  }
  if (modelTrouble)
    return {
      name: 'camera',
      outcome: 'could be better',
      facts: { model: 'failed' },
      words: t('faceTrouble'),
      remedy: null,
    };
  if (!seen) return null;
  const { facts, troubles } = seen;
  const measured = {
    light: Math.round(facts.light),
    sharpness: Number(facts.sharpness.toFixed(3)),
    faces: facts.faces,
    insideFrame: facts.insideFrame,
  };
  const worst = troubles[0];
  if (!worst)
    return { name: 'camera', outcome: 'good', facts: measured, words: t('cameraGood'), remedy: null };
  return {
    name: 'camera',
    outcome: 'could be better',
    facts: measured,
    words: t(worst),
    remedy: t(`${worst}Remedy`),
  };
}

/** The live camera with what is measured of it; tells each new finding. */
export function CameraCheck({ onFinding }: { onFinding: (finding: Finding | null) => void }) {
  const video = useRef<HTMLVideoElement>(null);
  const camera = useCamera();
  const [seen, modelTrouble] = useLook(video, camera.stream);
  const finding = useMemo(
    () => findingOf(seen, camera.trouble, modelTrouble),
    [seen, camera.trouble, modelTrouble],
  );
  const tell = useEffectEvent(onFinding);
  useEffect(() => tell(finding), [finding]);
  const facts = seen?.facts;
  return (
    <div className="grid grid-cols-[minmax(0,1fr)] gap-4 pb-4 desk:grid-cols-[232px_1fr]">
      <CameraView video={video} stream={camera.stream} />
      <div className="min-w-0 space-y-2 text-[0.9rem]">
        <CameraChoice camera={camera} />
        {facts ? (
          <details className="text-soft">
            <summary>{t('cameraDetails')}</summary>
            {t('cameraFigures', {
              faces: facts.faces ?? 0,
              light: Math.round(facts.light),
              sharpness: facts.sharpness.toFixed(2),
            })}
          </details>
        ) : (
          <p className="text-soft">
            {camera.stream ? t('cameraLooking') : camera.trouble ? '' : t('cameraOpening')}
          </p>
        )}
      </div>
    </div>
  );
}
