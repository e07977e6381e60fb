import { Camera as CameraIcon } from 'lucide-react';
import { useRef, useState } from 'react';
import type { ArrivalView } from '../../../core/arrival/api';
import { post, putBytes } from '../../api/client';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Notice';
import { useAction } from '../../ui/useAsync';
import { useArrival } from '../ArrivalContext';
import { CameraChoice } from '../camera/CameraChoice';
import { CameraView } from '../camera/CameraView';
import { useCamera } from '../camera/useCamera';
import { useLook } from '../camera/useLook';
import { StepTitle } from '../Steps';
import { t } from '../words';

const QUALITY = 0.85;

function snap(video: HTMLVideoElement): Promise<Blob | null> {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [video.videoWidth, video.videoHeight];
  canvas.getContext('2d')!.drawImage(video, 0, 0);
  return new Promise((resolve) => canvas.toBlob(resolve, 'image/jpeg', QUALITY));
}

export function Picture() {
  const { view, update } = useArrival();
  const video = useRef<HTMLVideoElement>(null);
  const camera = useCamera();
  const [seen] = useLook(video, camera.stream);
  const [taken, setTaken] = useState<{ picture: Blob; url: string } | null>(null);
  /** The candidate's own picture is taken; what is missing is one of the document. */
  const ofDocument = view.round.identityPicture && view.pictureTaken;
  const url = taken?.url ?? null;
  const { busy, trouble, run } = useAction();
  const worst = seen?.troubles[0];
  const take = async () => {
    const picture = await snap(video.current!);
    if (picture) setTaken({ picture, url: URL.createObjectURL(picture) });
  };
  const retake = () => {
    if (taken) URL.revokeObjectURL(taken.url);
    setTaken(null);
  };
  const use = () =>
    run(async () => {
      const of = ofDocument ? 'identity' : 'person';
      update(await putBytes<ArrivalView>(`/arrival/picture/${of}`, taken!.picture));
      retake();
    });
  const goWithout = () => run(async () => update(await post<ArrivalView>('/arrival/no-picture')));
  return (
    <>
      {ofDocument ? (
        <StepTitle title={t('identityTitle')} text={t('identityText')} />
      ) : (
        <StepTitle title={t('pictureTitle')} text={t('pictureText')} />
      )}
      <div className="max-w-[480px] space-y-3">
        <div className={url ? 'hidden' : ''}>
          <CameraView video={video} stream={camera.stream} />
        </div>
        {url && (
          <img
            src={url}
            alt={t('pictureAlt')}
            className="aspect-4/3 w-full -scale-x-100 rounded-lg object-cover"
          />
        )}
        {!url && <CameraChoice camera={camera} />}
        {camera.trouble && (
          <Notice tone="care">
            {t('cameraNone')}. {t('cameraNoneRemedy')}
          </Notice>
        )}
        {!url && !ofDocument && worst && (
          <Notice tone="care">
            {t(worst)}. {t(`${worst}Remedy`)}
          </Notice>
        )}
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <div className="flex flex-wrap gap-3 pt-1">
          {url ? (
            <>
              <Button look="first" className="min-h-11" disabled={busy} onClick={() => void use()}>
                {t('pictureUse')}
              </Button>
              <Button className="min-h-11" onClick={retake}>
                {t('pictureRetake')}
              </Button>
            </>
          ) : camera.trouble ? (
            <Button look="first" className="min-h-11" disabled={busy} onClick={() => void goWithout()}>
              {t('checksGoNote')}
            </Button>
          ) : (
            <Button
              look="first"
              className="min-h-11"
              disabled={!camera.stream || !seen}
              onClick={() => void take()}
            >
              <CameraIcon aria-hidden className="size-5" /> {t(ofDocument ? 'identityTake' : 'pictureTake')}
            </Button>
          )}
        </div>
      </div>
    </>
  );
}
