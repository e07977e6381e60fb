import { Hand } from 'lucide-react';
import { useState } from 'react';
import type { LiveView } from '../../core/live/api';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { ToolPanel } from '../ui/ToolPanel';
import { useAction } from '../ui/useAsync';
import { words } from '../words';
import { Talk } from './Talk';

const t = words('hand', {
  raise: 'Raise a hand',
  raised: 'Your hand is up',
  title: 'Ask the invigilator',
  what: 'What is it?',
  send: 'Raise my hand',
  waiting: 'The invigilator sees your hand; you can go on in the meantime.',
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
    <ToolPanel
      icon={Hand}
      name={t(up ? 'raised' : 'raise')}
      title={t('title')}
      look={up ? 'raised' : 'quiet'}
      className="w-[min(24rem,calc(100vw-1rem))] p-4"
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
    </ToolPanel>
  );
}
