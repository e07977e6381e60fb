import { Hand } from 'lucide-react';
import { Popover } from 'radix-ui';
import { useState } from 'react';
import type { LiveView } from '../../core/live/api';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { words } from '../words';
import { Talk } from './Talk';

const t = words('hand', {
  raise: 'Raise a hand',
  raised: 'Your hand is up',
  title: 'Ask the invigilator',
  what: 'What is it?',
  send: 'Raise my hand',
  waiting: 'Your hand is up since a moment ago. The invigilator sees it; you can go on in the meantime.',
});

interface Props {
  readonly live: LiveView | null;
  readonly onSay: (text: string, hand: boolean) => Promise<void>;
}

/** Asking the invigilator: a small panel, no mode; what was said stays readable in it. */
export function RaiseHand({ live, onSay }: Props) {
  const [text, setText] = useState('');
  const { busy, trouble, run } = useAction();
  const up = live?.hand != null;
  const send = () =>
    run(async () => {
      await onSay(text.trim(), true);
      setText('');
    });
  return (
    <Popover.Root>
      <Popover.Trigger
        className={`inline-flex min-h-10 items-center gap-2 rounded-control px-2.5 py-1 ${up ? 'bg-marigold-wash text-marigold' : 'hover:bg-shade'}`}
      >
        <Hand aria-hidden className="size-5" /> {t(up ? 'raised' : 'raise')}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          sideOffset={6}
          collisionPadding={8}
          aria-label={t('title')}
          className="z-30 w-[min(24rem,calc(100vw-1rem))] rounded-card border border-line bg-card p-4 shadow-float"
        >
          <p className="pb-1 font-semibold">{t('title')}</p>
          <Talk messages={live?.messages ?? []} />
          {up && <p className="pb-2 text-[0.9rem] text-marigold">{t('waiting')}</p>}
          <form
            className="space-y-2"
            onSubmit={(event) => {
              event.preventDefault();
              void send();
            }}
          >
            <label className="block text-[0.9rem]">
              {t('what')}
              <textarea
                rows={2}
                maxLength={500}
                value={text}
                onChange={(event) => setText(event.target.value)}
                className="mt-1 w-full rounded-control border border-edge bg-card p-2"
              />
            </label>
            {trouble && <Notice tone="trouble">{trouble}</Notice>}
            <Button type="submit" look="first" disabled={busy || text.trim() === ''}>
              {t('send')}
            </Button>
          </form>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
