import { AlertDialog } from 'radix-ui';
import { Button } from './Button';
import { Notice } from './Notice';
import { useAction } from './useAsync';

interface Props {
  readonly act: string;
  readonly title: string;
  readonly text: string;
  readonly keep: string;
  readonly onAct: () => Promise<void>;
  /** One act among others of a row. */
  readonly quiet?: boolean;
}

/** An act that cannot be undone: asked once, with its consequences in words. */
export function Confirm({ act, title, text, keep, onAct, quiet = false }: Props) {
  const { busy, trouble, run } = useAction();
  return (
    <AlertDialog.Root>
      <AlertDialog.Trigger asChild>
        {quiet ? (
          <button type="button" className="min-h-8 text-[0.88rem] text-slate underline underline-offset-4">
            {act}
          </button>
        ) : (
          <Button look="first">{act}</Button>
        )}
      </AlertDialog.Trigger>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-30 w-[min(30rem,calc(100vw-2rem))] -translate-1/2 rounded-card border border-line bg-card p-6 shadow-float">
          <AlertDialog.Title className="font-serif text-[1.35rem] font-semibold">{title}</AlertDialog.Title>
          <AlertDialog.Description className="py-3">{text}</AlertDialog.Description>
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
          <div className="flex justify-end gap-3 pt-2">
            <AlertDialog.Cancel asChild>
              <Button>{keep}</Button>
            </AlertDialog.Cancel>
            <Button look="first" disabled={busy} onClick={() => void run(onAct)}>
              {act}
            </Button>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
