import { History } from 'lucide-react';
import { Suspense, useState } from 'react';
import { later } from '../ui/later';
import type { ShownPart } from '../../core/papers/candidatePaper';
import { Notice } from '../ui/Notice';
import { useDesk } from './DeskContext';
import { t } from './words';

const VersionsDialog = later(async () => (await import('./behind')).VersionsDialog);

/** Looking through earlier versions of long work, and bringing one back. */
export function Versions({ part }: { readonly part: ShownPart }) {
  const [open, setOpen] = useState(false);
  const settle = useDesk((s) => s.settle);
  return (
    <>
      <button
        type="button"
        onClick={() => {
          settle();
          setOpen(true);
        }}
        className="inline-flex min-h-10 items-center gap-2 rounded-control px-2 text-[0.9rem] text-slate hover:bg-shade"
      >
        <History aria-hidden className="size-4.5" /> {t('versions')}
      </button>
      {open && (
        <Suspense>
          <VersionsDialog part={part} onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}

/** Another device wrote this answer too: the candidate chooses between the versions. */
export function OtherVersion({ part }: { readonly part: ShownPart }) {
  const [open, setOpen] = useState(false);
  const other = useDesk((s) => s.otherVersions.includes(part.target) && !s.compared.includes(part.target));
  const compare = useDesk((s) => s.compare);
  if (!other && !open) return null;
  return (
    <div className="pb-3">
      <Notice tone="care">
        {t('otherVersion')}{' '}
        <button type="button" className="font-semibold underline" onClick={() => setOpen(true)}>
          {t('otherVersionLook')}
        </button>
      </Notice>
      {open && (
        <Suspense>
          <VersionsDialog
            part={part}
            onClose={() => {
              setOpen(false);
              compare(part.target);
            }}
          />
        </Suspense>
      )}
    </div>
  );
}
