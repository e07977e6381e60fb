import { Camera as CameraIcon, FilePlus2 } from 'lucide-react';
import { useState } from 'react';
import { Button } from '../../ui/Button';
import { Camera } from './Camera';
import { ACCEPTED } from './PageCard';
import type { usePages } from './usePages';
import { t } from './words';

const filesOf = (input: HTMLInputElement) =>
  [...(input.files ?? [])].map((file) => ({ blob: file, name: file.name }));

/** Files, and the camera of this device. */
export function AddPages({
  read,
  full,
}: {
  readonly read: ReturnType<typeof usePages>['read'];
  readonly full: boolean;
}) {
  const [camera, setCamera] = useState(false);
  // Touch devices bring a camera of their own.
  const [capture] = useState(() => window.matchMedia('(pointer: coarse)').matches);
  const take = (input: HTMLInputElement) => {
    void read(filesOf(input), null);
    input.value = '';
  };
  const look = `relative inline-flex min-h-11 cursor-pointer items-center gap-2 rounded-control border border-line bg-card px-3.5 focus-within:outline-3 focus-within:outline-offset-2 focus-within:outline-kelp hover:border-edge ${full ? 'opacity-40' : ''}`;
  return (
    <>
      <label className={look}>
        <FilePlus2 aria-hidden className="size-5" /> {t('choose')}
        <input
          type="file"
          multiple
          accept={ACCEPTED}
          disabled={full}
          className="absolute size-px opacity-0"
          onChange={({ target }) => take(target)}
        />
      </label>
      {capture ? (
        <label className={look}>
          <CameraIcon aria-hidden className="size-5" /> {t('camera')}
          <input
            type="file"
            accept="image/*"
            capture="environment"
            disabled={full}
            className="absolute size-px opacity-0"
            onChange={({ target }) => take(target)}
          />
        </label>
      ) : (
        <Button className="min-h-11" disabled={full} onClick={() => setCamera(true)}>
          <CameraIcon aria-hidden className="size-5" /> {t('camera')}
        </Button>
      )}
      {camera && (
        <Camera
          onPicture={(blob) => void read([{ blob, name: t('taken') }], null)}
          onClose={() => setCamera(false)}
        />
      )}
    </>
  );
}
