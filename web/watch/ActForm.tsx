import { useState, type ReactNode } from 'react';
import type { WatchAct } from '../../core/watch/api';
import { DialogActs, DialogCard } from '../ui/DialogCard';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { t } from './words';

export const actWords = (act: WatchAct): string => t(act === 'pause' ? 'pauseAct' : act);

const SAYS: Partial<Record<WatchAct, Parameters<typeof t>[0]>> = {
  message: 'text',
  'answer hand': 'text',
  note: 'noted',
};
const WITH_MINUTES: readonly WatchAct[] = ['grant', 'readmit'];

interface Props {
  readonly title: string;
  readonly act: WatchAct;
  /** What is answered. */
  readonly asked?: string | undefined;
  readonly children: ReactNode;
  readonly send: string;
  readonly onAct: (text: string, minutes: number) => Promise<void>;
}

/** One act with what is said or its reason, and minutes where it gives some. */
export function ActForm({ title, act, asked, children, send, onAct }: Props) {
  const [open, setOpen] = useState(false);
  const [text, setText] = useState('');
  const [minutes, setMinutes] = useState('5');
  const { busy, trouble, run } = useAction();
  const withMinutes = WITH_MINUTES.includes(act);
  const doIt = () =>
    run(async () => {
      await onAct(text.trim(), withMinutes ? Number(minutes) : 0);
      setText('');
      setOpen(false);
    });
  return (
    <DialogCard open={open} onOpen={setOpen} trigger={children} title={title}>
      <form
        className="space-y-3"
        onSubmit={(event) => {
          event.preventDefault();
          void doIt();
        }}
      >
        {asked && (
          <blockquote className="border-l-4 border-marigold-line pl-3 whitespace-pre-wrap">
            {asked}
          </blockquote>
        )}
        {withMinutes && (
          <label className="block">
            {t('minutes')}
            <input
              type="number"
              required
              min={act === 'grant' ? 1 : 0}
              max={240}
              value={minutes}
              onChange={(event) => setMinutes(event.target.value)}
              className="mt-1 block min-h-10 w-28 rounded-control border border-edge bg-card px-3"
            />
          </label>
        )}
        <label className="block">
          {t(SAYS[act] ?? 'reason')}
          <textarea
            required
            minLength={2}
            maxLength={500}
            rows={2}
            value={text}
            onChange={(event) => setText(event.target.value)}
            className="mt-1 w-full rounded-control border border-edge bg-card p-2.5"
          />
        </label>
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <DialogActs keep={t('keep')} act={send} disabled={busy} />
      </form>
    </DialogCard>
  );
}
