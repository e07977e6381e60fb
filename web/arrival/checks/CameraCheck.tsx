import { Check, TriangleAlert } from 'lucide-react';
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
      'cameraRefused' | 'cameraNone' | 'cameraBusy';
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

function Fact({ good, children }: { good: boolean; children: string }) {
  const Icon = good ? Check : TriangleAlert;
  return (
    <li className="flex items-center gap-2">
      <Icon aria-hidden className={`size-4 flex-none ${good ? 'text-kelp' : 'text-marigold'}`} />
      {children}
    </li>
  );
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
    <div className="grid gap-4 pb-4 desk:grid-cols-[232px_1fr]">
      <CameraView video={video} stream={camera.stream} />
      <div className="min-w-0 space-y-2 text-[0.9rem]">
        <CameraChoice camera={camera} />
        {facts ? (
          <ul className="space-y-1">
            <Fact good={facts.faces === 1}>
              {facts.faces === 1 ? t('faceOne') : t(facts.faces === 0 ? 'nobody' : 'several')}
            </Fact>
            {facts.faces === 1 && (
              <Fact good={facts.insideFrame}>{t(facts.insideFrame ? 'faceInside' : 'off-centre')}</Fact>
            )}
            <Fact good={!seen.troubles.some((x) => x === 'dark' || x === 'bright' || x === 'covered')}>
              {t('lightFact', { light: Math.round(facts.light) })}
            </Fact>
            <Fact good={!facts.still}>{t(facts.still ? 'frozen' : 'movingFact')}</Fact>
            <Fact good={!seen.troubles.includes('blurred')}>
              {t('sharpFact', { sharpness: facts.sharpness.toFixed(3) })}
            </Fact>
          </ul>
        ) : (
          <p className="text-soft">
            {camera.stream ? t('cameraLooking') : camera.trouble ? '' : t('cameraOpening')}
          </p>
        )}
      </div>
    </div>
  );
}
