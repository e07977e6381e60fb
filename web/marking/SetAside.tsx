import { Inbox } from 'lucide-react';
import { Dialog } from 'radix-ui';
import { useState } from 'react';
import { asideReasons, type AsideReason } from '../../core/marking/mark';
import { post } from '../api/client';
import { Button } from '../ui/Button';
import { LongText } from '../ui/LongText';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { t } from './words';

interface Props {
  readonly task: number;
  readonly open: boolean;
  readonly onOpen: (open: boolean) => void;
  readonly onAside: () => void;
}

/** Gives a script to the lead with a question; it comes back with the answer. */
export function SetAside({ task, open, onOpen, onAside }: Props) {
  const [reason, setReason] = useState<AsideReason | 'interest'>('illegible');
  const [note, setNote] = useState('');
  const isInterest = reason === 'interest';
  const { busy, trouble, run } = useAction();
  const send = () =>
    run(async () => {
      if (isInterest) await post(`/marking/tasks/${task}/interest`);
      else await post(`/marking/tasks/${task}/set-aside`, { reason, note });
      onOpen(false);
      onAside();
    });
  return (
    <Dialog.Root open={open} onOpenChange={onOpen}>
      <Dialog.Trigger asChild>
        <Button>
          <Inbox aria-hidden className="size-4" /> {t('setAside')}
        </Button>
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content className="fixed top-1/2 left-1/2 z-30 w-[min(30rem,calc(100vw-2rem))] -translate-1/2 rounded-card border border-line bg-card p-6 shadow-float">
          <Dialog.Title className="font-serif text-[1.35rem] font-semibold">{t('asideTitle')}</Dialog.Title>
          <Dialog.Description className="py-2 text-soft">
            {t(isInterest ? 'interestText' : 'asideText')}
          </Dialog.Description>
          <fieldset className="space-y-1 py-2">
            <legend className="font-semibold">{t('asideWhy')}</legend>
            {([...asideReasons, 'interest'] as const).map((one) => (
              <label key={one} className="flex min-h-8 items-center gap-2">
                <input type="radio" name="reason" checked={reason === one} onChange={() => setReason(one)} />
                {t(`aside ${one}`)}
              </label>
            ))}
          </fieldset>
          {!isInterest && <LongText label={t('asideNote')} value={note} onChange={setNote} rows={3} />}
          {trouble && <Notice tone="trouble">{trouble}</Notice>}
          <div className="flex justify-end gap-3 pt-4">
            <Dialog.Close asChild>
              <Button>{t('cancel')}</Button>
            </Dialog.Close>
            <Button look="first" disabled={busy} onClick={() => void send()}>
              {t(isInterest ? 'interestAct' : 'setAside')}
            </Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
