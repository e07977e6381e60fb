import { Lock } from 'lucide-react';
import type { QuestionState } from '../../core/sittings/progress';

const FILLS: Record<QuestionState, string> = {
  unopened: 'h-0',
  'looked at': 'h-[4px]',
  'part done': 'h-[46%]',
  done: 'h-full',
};

interface Props {
  readonly number: number;
  readonly marks: string;
  readonly state: QuestionState;
  readonly flagged: boolean;
  readonly current?: boolean;
  readonly height: number;
  /** Passed in a forward-only section: it cannot be gone to any more. */
  readonly closed?: boolean;
}

/**
 * One question as a bar: its height grows with its marks; its fill tells the state by shape – hollow, a thin baseline,
 * half, full – and a folded corner is a flag. Drawn for the eye; words stand beside it for everybody else.
 */
export function StateBar({ number, marks, state, flagged, current = false, height, closed = false }: Props) {
  const done = state === 'done';
  const chip = done ? '' : state === 'part done' ? 'rounded-[3px] bg-card px-1' : '';
  const edge = current ? 'border-[2.5px] border-kelp' : done ? 'border-filled' : 'border-edge';
  return (
    <span
      aria-hidden
      data-bar={state}
      style={{ height }}
      className={`relative flex w-full items-center justify-between rounded border-[1.5px] px-2 text-[14px] ${edge} ${state === 'unopened' && !current ? '' : 'bg-card'} ${done ? 'text-on' : 'text-ink'}`}
    >
      <span
        data-bar-fill
        className={`absolute inset-x-0 bottom-0 bg-filled ${FILLS[state]} ${done ? 'rounded-[2px]' : ''}`}
      />
      <span data-bar-text className={`relative leading-5 ${chip} ${current ? 'font-bold' : ''}`}>
        {number}
      </span>
      <span
        data-bar-text
        className={`relative text-[12px] leading-5 ${chip} ${done ? 'text-on' : 'text-soft'}`}
      >
        {marks}
      </span>
      {closed && (
        <Lock
          className={`absolute top-1/2 left-1/2 size-3.5 -translate-1/2 ${done ? 'text-on' : 'text-soft'}`}
          strokeWidth={2.5}
        />
      )}
      {flagged && (
        <span
          data-bar-flag
          className="absolute top-0 right-0 size-0 border-t-[14px] border-l-[14px] border-t-fold border-l-transparent"
        />
      )}
      {current && (
        <span className="absolute top-1/2 -right-[14px] -mt-[7px] size-0 border-y-[7px] border-l-[9px] border-y-transparent border-l-kelp" />
      )}
    </span>
  );
}
