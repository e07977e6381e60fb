import { Hand } from 'lucide-react';
import { useState } from 'react';
import { later } from '../ui/later';
import type { LiveView } from '../../core/live/api';
import { ToolPanel } from '../ui/ToolPanel';
import { words } from '../words';

const t = words('hand', {
  raise: 'Raise a hand',
  raised: 'Your hand is raised',
  title: 'Ask the invigilator',
});

const AskForm = later(async () => (await import('./AskForm')).AskForm);

interface Props {
  readonly live: LiveView | null;
  /** Where there is little room: the icon alone. */
  readonly brief?: 'long' | undefined;
  readonly onSay: (text: string, hand: boolean) => Promise<void>;
}

/** Asking the invigilator: a small panel, no mode; what was said stays readable in it. */
export function RaiseHand({ live, brief, onSay }: Props) {
  const [text, setText] = useState('');
  const up = live?.hand != null;
  return (
    <ToolPanel
      icon={Hand}
      name={t(up ? 'raised' : 'raise')}
      title={t('title')}
      look={up ? (brief ? 'framedRaised' : 'raised') : brief ? 'framed' : 'quiet'}
      {...(brief ? { brief } : {})}
      className="w-[min(24rem,calc(100vw-1rem))] p-4"
    >
      <AskForm live={live} text={text} onText={setText} onSay={onSay} />
    </ToolPanel>
  );
}
