import { ChevronUp } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { Rail } from './Rail';
import { t } from './words';

/** The whole rail over a narrow screen. */
export function RailSheet({ onClose }: { onClose: () => void }) {
  return (
    <Dialog.Root open onOpenChange={onClose}>
      <Dialog.Portal>
        <Dialog.Content aria-describedby={undefined} className="fixed inset-0 z-30 flex flex-col bg-shade">
          <div className="flex items-center justify-between border-b border-line px-3.5 py-1">
            <Dialog.Title className="font-semibold">{t('rail')}</Dialog.Title>
            <Dialog.Close className="inline-flex min-h-11 items-center gap-1.5">
              {t('foldRail')} <ChevronUp aria-hidden className="size-5" />
            </Dialog.Close>
          </div>
          <div className="min-h-0 flex-1">
            <Rail onGone={onClose} />
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
