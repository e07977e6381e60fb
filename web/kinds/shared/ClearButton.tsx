import { Eraser } from 'lucide-react';
import { words } from '../../words';

const t = words('clearAnswer', { clear: 'Remove my answer' });

/** Takes an answer back as a whole. */
export function ClearButton({ shown, onClear }: { readonly shown: boolean; readonly onClear: () => void }) {
  if (!shown) return null;
  return (
    <button
      type="button"
      onClick={onClear}
      className="mt-1 inline-flex min-h-11 items-center gap-1.5 rounded-control px-2 text-[0.85rem] text-soft hover:bg-shade hover:text-ink"
    >
      <Eraser aria-hidden className="size-4" /> {t('clear')}
    </button>
  );
}
