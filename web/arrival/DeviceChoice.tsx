import type { Device } from './devices';

interface Props {
  readonly label: string;
  readonly devices: readonly Device[];
  readonly chosen: string | null;
  /** The one that is open, where none was chosen. */
  readonly opened: string | undefined;
  readonly onChoose: (id: string) => void;
}

/** Which of several cameras or microphones is used. */
export function DeviceChoice({ label, devices, chosen, opened, onChoose }: Props) {
  if (devices.length === 0) return null;
  return (
    <label className="flex flex-wrap items-center gap-x-3 gap-y-1">
      {label}
      <select
        value={chosen ?? opened ?? ''}
        onChange={(event) => onChoose(event.target.value)}
        className="min-h-10 min-w-0 flex-1 rounded-control border border-edge bg-card px-2.5"
      >
        {chosen === null && !devices.some((d) => d.id === opened) && <option value={opened ?? ''}>–</option>}
        {devices.map(({ id, label: name }) => (
          <option key={id} value={id}>
            {name}
          </option>
        ))}
      </select>
    </label>
  );
}
