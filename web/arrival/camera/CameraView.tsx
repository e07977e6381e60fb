import { useEffect, type RefObject } from 'react';
import { t } from '../words';

interface Props {
  readonly video: RefObject<HTMLVideoElement | null>;
  readonly stream: MediaStream | null;
  readonly className?: string;
}

/** The live picture, mirrored as people expect, with the oval in which the face should be. */
export function CameraView({ video, stream, className = '' }: Props) {
  useEffect(() => {
    if (video.current) video.current.srcObject = stream;
  }, [video, stream]);
  return (
    <div className={`relative overflow-hidden rounded-lg bg-ink/80 ${className}`}>
      <video ref={video} autoPlay muted playsInline aria-label={t('pictureLive')} className="block aspect-4/3 w-full -scale-x-100 object-cover" />
      <span aria-hidden className="absolute top-[12%] left-1/2 h-[70%] w-[36%] -translate-x-1/2 rounded-[50%] border-2 border-white/90" />
    </div>
  );
}
