import { Dialog } from 'radix-ui';
import type { ReactNode } from 'react';
import { Button } from './Button';

/** A card over the page, with a form that is filled in or left; what opens it keeps the focus afterwards. */
export function DialogCard({
  open,
  onOpen,
  trigger,
  title,
  children,
}: {
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  readonly trigger: ReactNode;
  readonly title: string;
  readonly children: ReactNode;
}) {
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Dialog.Trigger asChild>{trigger}</Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-30 max-h-[calc(100vh-2rem)] w-[min(42rem,calc(100vw-2rem))] -translate-1/2 overflow-y-auto rounded-card border border-line bg-card p-6 shadow-float"
        >
          <Dialog.Title className="pb-2 font-serif text-[1.35rem] font-semibold break-words">
            {title}
          </Dialog.Title>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

/** How a form in a card is left: as it was, or by its act; without `onAct` the act sends the form that it stands in. */
export function DialogActs({
  keep,
  act,
  disabled,
  onAct,
}: {
  readonly keep: string;
  readonly act: string;
  readonly disabled: boolean;
  readonly onAct?: () => void;
}) {
  return (
    <div className="flex justify-end gap-3">
      <Dialog.Close asChild>
        <Button>{keep}</Button>
      </Dialog.Close>
      <Button type={onAct ? 'button' : 'submit'} look="first" disabled={disabled} onClick={onAct}>
        {act}
      </Button>
    </div>
  );
}
