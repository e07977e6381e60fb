import { Suspense } from 'react';
import { X } from 'lucide-react';
import { Dialog } from 'radix-ui';
import type { Page } from '../../core/files/pages';
import { LargePicture } from '../documents/LargePicture';
import { Button } from '../ui/Button';
import { lazily } from '../ui/later';
import { words } from '../words';
import type { LoadedPage } from './pageSource';

/** With the library that draws documents. */
export const PdfPage = lazily(async () => (await import('./PdfPage')).PdfPage);

const t = words('largePage', { close: 'Close' });

interface Props {
  readonly page: Page;
  readonly loaded: LoadedPage & { readonly is: 'here' };
  readonly title: string;
  readonly onClose: () => void;
}

function LargeDocument({ page, loaded, title, onClose }: Props) {
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-ink/40" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed inset-2 z-50 flex flex-col rounded-card border border-line bg-card shadow-float desk:inset-6"
        >
          <div className="flex items-center gap-2 border-b border-line px-4 py-2">
            <Dialog.Title className="flex-1 font-semibold">{title}</Dialog.Title>
            <Dialog.Close asChild>
              <Button aria-label={t('close')}>
                <X aria-hidden className="size-5" />
              </Button>
            </Dialog.Close>
          </div>
          <div className="min-h-0 flex-1 p-3">
            <Suspense>
              <PdfPage page={page} loaded={loaded} title={title} fills />
            </Suspense>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** A page over the whole window: by wheel, fingers, pointer and keys. */
export function LargePage(props: Props) {
  const { page, loaded, title, onClose } = props;
  if (page.type === 'application/pdf') return <LargeDocument {...props} />;
  return (
    <LargePicture
      address={loaded.address}
      description={title}
      title={title}
      turn={page.turn}
      onClose={onClose}
    />
  );
}
