import { useId, useRef, useState } from 'react';
import { placeAt, indexOf, isOnAxis, type Axis } from '../../../core/kinds/shared/axis';
import { exact, exactOf, exactText, showExact, timesExact, type Exact } from '../../../core/numbers/exact';
import { numberFormatOf } from '../../../core/numbers/numberFormat';
import { readNumber } from '../../../core/numbers/readNumber';
import { Button } from '../../ui/Button';
import { words } from '../../words';

const t = words('typedPlace', {
  set: 'Set',
  empty: '{{field}}: type a number.',
  unreadable: '{{field}}: “{{typed}}” is not a number.',
  outside: '{{field}}: {{typed}} lies outside the axis. It goes from {{from}} to {{to}}.',
  between: '{{field}}: {{typed}} is not a point of the grid. The step is {{step}}.',
});

interface Props {
  /** One axis, or two. */
  readonly axes: readonly Axis[];
  readonly labels: readonly string[];
  readonly locale: string;
  readonly onSet: (place: string[]) => void;
}

type Problem = 'empty' | 'unreadable' | 'outside' | 'between';

/** A typed coordinate as a place of the axis, or why it is none. */
function placeOf(axis: Axis, typed: string, locale: string): { place: string } | { problem: Problem } {
  if (typed.trim() === '') return { problem: 'empty' };
  const reading = readNumber(typed, { locale, scientific: false, fractions: false, units: [] });
  if ('problem' in reading) return { problem: 'unreadable' };
  const { value } = reading.read;
  if (!isOnAxis(axis, value)) return { problem: 'outside' };
  const place = placeAt(axis, indexOf(axis, value));
  return place === exactText(value) ? { place } : { problem: 'between' };
}

/** Places by their coordinates, for who types instead of pointing. */
export function TypedPlace({ axes, labels, locale, onSet }: Props) {
  const id = useId();
  const [typed, setTyped] = useState(() => axes.map(() => ''));
  /** By field, as of the last press. */
  const [problems, setProblems] = useState<readonly string[]>([]);
  const form = useRef<HTMLFormElement>(null);
  const told = (field: number, problem: Problem) => {
    const show = (value: Exact) => showExact(value, numberFormatOf(locale).decimal);
    const { from, to, step, snaps } = axes[field]!;
    return t(problem, {
      field: labels[field]!,
      typed: typed[field]!,
      from: show(exactOf(from)),
      to: show(exactOf(to)),
      step: show(timesExact(exactOf(step), exact(1n, BigInt(snaps)))),
    });
  };
  const set = (event: React.FormEvent) => {
    event.preventDefault();
    const found = axes.map((axis, i) => placeOf(axis, typed[i]!, locale));
    setProblems(found.map((one, i) => ('problem' in one ? told(i, one.problem) : '')));
    const wrong = found.findIndex((one) => 'problem' in one);
    if (wrong >= 0) {
      form.current?.querySelectorAll('input')[wrong]?.focus();
      return;
    }
    onSet(found.map((one) => ('place' in one ? one.place : '')));
    setTyped(axes.map(() => ''));
  };
  return (
    <form ref={form} noValidate onSubmit={set} className="mt-2">
      <div className="flex flex-wrap items-center gap-2">
        {labels.map((label, i) => (
          <label key={label} className="inline-flex items-center gap-1.5 text-[0.92rem]">
            {label}
            <input
              type="text"
              inputMode="text"
              autoComplete="off"
              maxLength={20}
              aria-invalid={problems[i] ? true : undefined}
              aria-describedby={`${id}-problem-${i}`}
              value={typed[i]}
              onChange={(event) => setTyped(typed.with(i, event.target.value))}
              className={`min-h-11 w-20 rounded-control border bg-card px-2.5 ${problems[i] ? 'border-2 border-brick' : 'border-edge'}`}
            />
          </label>
        ))}
        <Button type="submit" className="min-h-11">
          {t('set')}
        </Button>
      </div>
      <div role="status" className="text-[0.85rem] text-brick">
        {labels.map((label, i) => (
          <p key={label} id={`${id}-problem-${i}`} className="empty:hidden">
            {problems[i]}
          </p>
        ))}
      </div>
    </form>
  );
}
