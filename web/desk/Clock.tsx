import { Eye, EyeOff } from 'lucide-react';
import { showClock, showLength } from '../../core/timing/pace';
import { MINUTE_MS } from '../../core/timing/deadline';
import { useDesk } from './DeskContext';
import type { DeskState } from './deskStore';
import { t } from './words';

/** All the time that this candidate has, stops included. */
export const wholeMs = ({ time }: Pick<DeskState, 'time'>): number => time.deadlineAt - time.startedAt;

/** Time left as the server counts it. It can be hidden; the warnings come all the same. */
export function Clock() {
  const shown = useDesk((s) => showClock(s.leftMs));
  const low = useDesk((s) => s.leftMs <= 5 * MINUTE_MS);
  const hidden = useDesk((s) => s.clockHidden);
  const toggle = useDesk((s) => s.toggleClock);
  const length = useDesk((s) => showLength(wholeMs(s)));
  const extra = useDesk((s) => wholeMs(s) > s.paper.minutes * MINUTE_MS + 1000);
  const stopped = useDesk((s) => s.time.stopped?.why ?? null);
  const timed = useDesk((s) => s.timed);
  const Icon = hidden ? Eye : EyeOff;
  if (!timed) return <p className="py-1 text-[15px] text-soft">{t('untimed')}</p>;
  return (
    <div>
      <div className="flex items-center justify-between">
        {hidden ? (
          <p className="text-[15px] text-soft">{t('clockHidden')}</p>
        ) : (
          <p
            role="timer"
            className={`text-[33px] leading-none font-semibold tracking-tight ${low ? 'text-brick' : ''}`}
          >
            {shown}
          </p>
        )}
        <button
          type="button"
          onClick={toggle}
          aria-label={t(hidden ? 'showClock' : 'hideClock')}
          title={t(hidden ? 'showClock' : 'hideClock')}
          className="grid size-9 place-items-center rounded-control text-soft hover:bg-line/50 hover:text-ink"
        >
          <Icon aria-hidden className="size-5" />
        </button>
      </div>
      {!hidden && (
        <p className="mt-1 text-[13px] leading-5 text-soft">
          {stopped ? t(`clock ${stopped}`) : t(extra ? 'leftExtra' : 'left', { length })}
        </p>
      )}
    </div>
  );
}
