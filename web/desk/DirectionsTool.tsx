import { ScrollText } from 'lucide-react';
import { Suspense, useState } from 'react';
import { later } from '../ui/later';
import { triggerLook } from '../ui/toolTrigger';
import { useDesk } from './DeskContext';
import { t } from './words';

const DirectionsDialog = later(async () => (await import('./behind')).DirectionsDialog);

/** The directions are one press away from every question. */
export function DirectionsTool() {
  const [open, setOpen] = useState(false);
  const lookUp = useDesk((s) => s.lookUpDirections);
  return (
    <>
      <button
        type="button"
        aria-haspopup="dialog"
        aria-expanded={open}
        className={triggerLook()}
        onClick={() => {
          lookUp();
          setOpen(true);
        }}
      >
        <ScrollText aria-hidden className="size-5 flex-none" />
        {t('directions')}
      </button>
      {open && (
        <Suspense>
          <DirectionsDialog onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}
