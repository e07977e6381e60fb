import type { Message } from '../../core/live/api';
import { showSecond } from '../ui/showSecond';
import { words } from '../words';

const t = words('talk', { you: 'You', invigilator: 'Invigilator', log: 'What was said' });

/** What was said between a candidate and the invigilators, the newest last. */
export function Talk({ messages }: { messages: readonly Message[] }) {
  if (messages.length === 0) return null;
  return (
    <ul
      aria-label={t('log')}
      // A list that scrolls must be reachable by keys.
      tabIndex={0}
      className="mb-3 max-h-48 space-y-2 overflow-y-auto text-[0.92rem]"
    >
      {messages.map(({ id, at, from, text }) => (
        <li
          key={id}
          className={from === 'you' ? 'border-l-2 border-line pl-3' : 'border-l-2 border-slate pl-3'}
        >
          <p className="text-[0.8rem] text-soft">
            {t(from)} · {showSecond(at).slice(0, 5)}
          </p>
          <p className="break-words">{text}</p>
        </li>
      ))}
    </ul>
  );
}
