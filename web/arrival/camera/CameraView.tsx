import { useCallback, type RefObject } from 'react';
import { t } from '../words';

interface Props {
  /** Filled with the element, for whoever measures the picture. */
  readonly video: RefObject<HTMLVideoElement | null>;
  readonly stream: MediaStream | null;
}

/** The live picture, mirrored as people expect, with the oval in which the face should be. */
export function CameraView({ video, stream }: Props) {
  const place = useCallback(
    (element: HTMLVideoElement | null) => {
      if (element && element.srcObject !== stream) {
        element.srcObject = stream;
        // Asked for by name: what plays by itself stands still while it is scrolled out of view.
        void element.play().catch(() => undefined);
      }
      Object.assign(video, { current: element });
    },
    [video, stream],
  );
  return (
    <div className="relative overflow-hidden rounded-lg bg-ink/80">
      <video
        ref={place}
        autoPlay
        muted
        playsInline
        aria-label={t('pictureLive')}
        className="block aspect-4/3 w-full -scale-x-100 object-cover"
      />
      <span
        aria-hidden
        className="absolute top-[12%] left-1/2 h-[70%] w-[36%] -translate-x-1/2 rounded-[50%] border-2 border-white/90"
      />
    </div>
  );
}
