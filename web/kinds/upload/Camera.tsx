import { Dialog } from 'radix-ui';
import { useEffect, useRef, useState } from 'react';
import { Button } from '../../ui/Button';
import { Notice } from '../../ui/Notice';
import { t } from './words';

type Trouble = 'cameraRefused' | 'cameraNone' | 'cameraBusy';

function troubleOf(error: unknown): Trouble {
  const { name } = error as { name?: string };
  if (name === 'NotAllowedError' || name === 'SecurityError') return 'cameraRefused';
  return name === 'NotFoundError' || name === 'OverconstrainedError' ? 'cameraNone' : 'cameraBusy';
}

/** As sharp as the camera can: handwriting is to be read. */
const WANTED = { facingMode: 'environment', width: { ideal: 2560 }, height: { ideal: 1920 } } as const;

async function openCamera(): Promise<MediaStream> {
  if (!('mediaDevices' in navigator)) throw new DOMException('', 'NotFoundError');
  return navigator.mediaDevices.getUserMedia({ video: WANTED });
}

/** The camera as long as this is drawn. */
function useStream(): { readonly stream: MediaStream | null; readonly trouble: Trouble | null } {
  const [stream, setStream] = useState<MediaStream | null>(null);
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  useEffect(() => {
    let current = true;
    let opened: MediaStream | null = null;
    const stop = () => opened?.getTracks().forEach((track) => track.stop());
    openCamera()
      .then((made) => {
        opened = made;
        if (current) setStream(made);
        else stop();
      })
      .catch((error: unknown) => current && setTrouble(troubleOf(error)));
    return () => {
      current = false;
      stop();
    };
  }, []);
  return { stream, trouble };
}

function pictureOf(video: HTMLVideoElement): Promise<Blob | null> {
  const canvas = document.createElement('canvas');
  [canvas.width, canvas.height] = [video.videoWidth, video.videoHeight];
  canvas.getContext('2d')!.drawImage(video, 0, 0);
  return new Promise((done) => canvas.toBlob(done, 'image/jpeg', 0.92));
}

interface Taken {
  readonly blob: Blob;
  readonly address: string;
}

function Live({
  stream,
  onTaken,
}: {
  readonly stream: MediaStream | null;
  readonly onTaken: (taken: Taken) => void;
}) {
  const video = useRef<HTMLVideoElement>(null);
  const [ready, setReady] = useState(false);
  useEffect(() => {
    if (!video.current || !stream) return;
    video.current.srcObject = stream;
    void video.current.play().catch(() => undefined);
  }, [stream]);
  const take = async () => {
    const blob = await pictureOf(video.current!);
    if (blob) onTaken({ blob, address: URL.createObjectURL(blob) });
  };
  return (
    <>
      <video
        ref={video}
        autoPlay
        muted
        playsInline
        aria-label={t('live')}
        onLoadedData={() => setReady(true)}
        className="block min-h-0 w-full flex-1 rounded-lg bg-ink/80 object-contain"
      />
      <div className="flex justify-end pt-3">
        <Button look="first" className="min-h-11" disabled={!ready} onClick={() => void take()}>
          {t('take')}
        </Button>
      </div>
    </>
  );
}

interface Props {
  readonly onPicture: (picture: Blob) => void;
  readonly onClose: () => void;
}

/** Photographs a page with the camera of this device: taken, looked at, and added or taken again. */
export function Camera({ onPicture, onClose }: Props) {
  const { stream, trouble } = useStream();
  const [taken, setTaken] = useState<Taken | null>(null);
  useEffect(() => () => void (taken && URL.revokeObjectURL(taken.address)), [taken]);
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Dialog.Content className="fixed inset-2 z-50 flex flex-col rounded-card border border-line bg-card p-4 shadow-float desk:inset-x-[15vw] desk:inset-y-6">
          <div className="flex items-start gap-3 pb-3">
            <div className="flex-1">
              <Dialog.Title className="font-serif text-[1.3rem] font-semibold">
                {t('cameraTitle')}
              </Dialog.Title>
              <Dialog.Description className="text-[0.92rem] text-soft">{t('cameraHelp')}</Dialog.Description>
            </div>
            <Dialog.Close asChild>
              <Button>{t('close')}</Button>
            </Dialog.Close>
          </div>
          {trouble && <Notice tone="trouble">{t(trouble)}</Notice>}
          {!trouble && !taken && <Live stream={stream} onTaken={setTaken} />}
          {taken && (
            <>
              <img
                src={taken.address}
                alt={t('taken')}
                className="min-h-0 w-full flex-1 rounded-lg object-contain"
              />
              <div className="flex flex-wrap justify-end gap-3 pt-3">
                <Button className="min-h-11" onClick={() => setTaken(null)}>
                  {t('takeAgain')}
                </Button>
                <Button
                  look="first"
                  className="min-h-11"
                  onClick={() => {
                    onPicture(taken.blob);
                    setTaken(null);
                  }}
                >
                  {t('keep')}
                </Button>
              </div>
            </>
          )}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
