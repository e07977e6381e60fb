import { get } from '../api/client';

export interface Device {
  readonly id: string;
  readonly label: string;
}

const STAND_IN = 'stand-in:';

/** Stand-ins with their words, as devices to choose. */
export const asDevices = (scenes: Readonly<Record<string, string>>): Device[] =>
  Object.entries(scenes).map(([scene, label]) => ({ id: STAND_IN + scene, label }));

/** The scene of a stand-in; null for a device that is there. */
export const sceneOf = (id: string | null): string | null =>
  id?.startsWith(STAND_IN) ? id.slice(STAND_IN.length) : null;

/**
 * Devices of one sort, named as the browser names them (it does so once one of them is allowed), and the stand-ins where
 * the server's configuration has them.
 */
export async function listDevices(
  kind: 'videoinput' | 'audioinput',
  nameless: (number: number) => string,
  standIns: readonly Device[],
): Promise<Device[]> {
  const found = (await navigator.mediaDevices?.enumerateDevices()) ?? [];
  // Without a connection there are no stand-ins; the devices are there all the same.
  const { standInCamera } = await get<{ standInCamera: boolean }>('/config').catch(() => ({
    standInCamera: false,
  }));
  return [
    ...found
      // Before it is allowed, a browser lists a device without telling which it is.
      .filter((d) => d.kind === kind && d.deviceId !== '')
      .map((d, i) => ({ id: d.deviceId, label: d.label || nameless(i + 1) })),
    ...(standInCamera ? standIns : []),
  ];
}
