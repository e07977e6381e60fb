import { DeviceChoice } from '../DeviceChoice';
import { t } from '../words';
import type { Camera } from './useCamera';

export function CameraChoice({ camera: { stream, devices, chosen, choose } }: { camera: Camera }) {
  const opened = stream?.getVideoTracks()[0]?.getSettings().deviceId;
  return (
    <DeviceChoice
      label={t('cameraWhich')}
      devices={devices}
      chosen={chosen}
      opened={opened}
      onChoose={choose}
    />
  );
}
