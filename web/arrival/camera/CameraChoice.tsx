import { t } from '../words';
import type { Camera } from './useCamera';

export function CameraChoice({ camera }: { camera: Camera }) {
  if (camera.devices.length === 0) return null;
  const opened = camera.stream?.getVideoTracks()[0]?.getSettings().deviceId;
  return (
    <label className="flex flex-wrap items-center gap-x-3 gap-y-1">
      {t('cameraWhich')}
      <select
        value={camera.chosen ?? opened ?? ''}
        onChange={(event) => camera.choose(event.target.value)}
        className="min-h-10 min-w-0 flex-1 rounded-control border border-edge bg-card px-2.5"
      >
        {camera.chosen === null && !camera.devices.some((d) => d.id === opened) && (
          <option value={opened ?? ''}>–</option>
        )}
        {camera.devices.map(({ id, label }) => (
          <option key={id} value={id}>
            {label}
          </option>
        ))}
      </select>
    </label>
  );
}
