import type { LiveView } from '../../core/live/api';
import { Button } from '../ui/Button';
import { Notice } from '../ui/Notice';
import { useAction } from '../ui/useAsync';
import { words } from '../words';
import { Talk } from './Talk';

const t = words('ask', {
  title: 'Ask the invigilator',
  what: 'What do you need help with?',
  send: 'Send and raise a hand',
  waiting: 'Your hand is raised. You can keep working while you wait.',
});

interface Props {
  readonly live: LiveView | null;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly onSay: (text: string, hand: boolean) => Promise<void>;
}

/** What was said with the invigilator, and what is asked now. */
export function AskForm({ live, text, onText, onSay }: Props) {
  const { busy, trouble, run } = useAction();
  const send = () =>
    run(async () => {
      await onSay(text.trim(), true);
      onText('');
    });
  return (
    <>
      <p className="pb-1 font-semibold">{t('title')}</p>
      <Talk messages={live?.messages ?? []} />
      {live?.hand != null && <p className="pb-2 text-[0.9rem] text-marigold">{t('waiting')}</p>}
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
            onChange={(event) => onText(event.target.value)}
            className="mt-1 w-full rounded-control border border-edge bg-card p-2"
          />
        </label>
        {trouble && <Notice tone="trouble">{trouble}</Notice>}
        <Button type="submit" look="first" disabled={busy || text.trim() === ''}>
          {t('send')}
        </Button>
      </form>
    </>
  );
}
