import { Volume2 } from 'lucide-react';
import { t } from './words';

interface Props {
  /** 0 to 1. */
  readonly volume: number;
  readonly onVolume: (volume: number) => void;
}

export function VolumeSlider({ volume, onVolume }: Props) {
  return (
    <label className="flex min-h-10 items-center gap-2 text-[0.88rem]">
      <Volume2 aria-hidden className="size-5 text-soft" />
      <span className="sr-only">{t('volume')}</span>
      <input
        type="range"
        min={0}
        max={1}
        step={0.05}
        value={volume}
        aria-valuetext={`${Math.round(volume * 100)} %`}
        onChange={(event) => onVolume(Number(event.target.value))}
        className="w-28 accent-kelp"
      />
    </label>
  );
}
