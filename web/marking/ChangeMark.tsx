import { AlertDialog } from 'radix-ui';
import type { MarkedScript } from '../../core/marking/api';
import { Button } from '../ui/Button';
import { t } from './words';

interface Props {
  /** The script that is asked about; null while nothing is. */
  readonly script: MarkedScript | null;
  readonly onChange: (task: number) => void;
  readonly onKeep: () => void;
}

/** Before a mark is changed that was given some time ago: asked of every script alike. */
export function ChangeMark({ script, onChange, onKeep }: Props) {
  return (
    <AlertDialog.Root open={script !== null} onOpenChange={(open) => !open && onKeep()}>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-30 w-[min(30rem,calc(100vw-2rem))] -translate-1/2 rounded-card border border-line bg-card p-6 shadow-float">
          <AlertDialog.Title className="font-serif text-[1.35rem] font-semibold">
            {t('changeTitle')}
          </AlertDialog.Title>
          <AlertDialog.Description className="py-3">
            {t('changeText', { script: script?.script ?? '' })}
          </AlertDialog.Description>
          <div className="flex justify-end gap-3 pt-2">
            <AlertDialog.Cancel asChild>
              <Button>{t('changeKeep')}</Button>
            </AlertDialog.Cancel>
            <Button look="first" onClick={() => script && onChange(script.task)}>
              {t('changeAct')}
            </Button>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
