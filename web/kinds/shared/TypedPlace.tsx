import { useId, useState } from 'react';
import { placeAt, indexOf, isOnAxis, type Axis } from '../../../core/kinds/shared/axis';
import { exactText } from '../../../core/numbers/exact';
import { readNumber } from '../../../core/numbers/readNumber';
import { Button } from '../../ui/Button';
import { words } from '../../words';

const t = words('typedPlace', {
  set: 'Set',
  unreadable: 'This is not a number.',
  outside: 'This lies outside the axis.',
  between: 'Use a point of the grid.',
});

interface Props {
  /** One axis, or two. */
  readonly axes: readonly Axis[];
  readonly labels: readonly string[];
  readonly locale: string;
  readonly onSet: (place: string[]) => void;
}

/** A typed coordinate as a place of the axis, or why it is none. */
function placeOf(axis: Axis, typed: string, locale: string): { place: string } | { problem: string } {
  const reading = readNumber(typed, { locale, scientific: false, fractions: false, units: [] });
  if ('problem' in reading) return { problem: t('unreadable') };
  const { value } = reading.read;
  if (!isOnAxis(axis, value)) return { problem: t('outside') };
  const place = placeAt(axis, indexOf(axis, value));
  return place === exactText(value) ? { place } : { problem: t('between') };
}

/** Places by their coordinates, for who types instead of pointing. */
export function TypedPlace({ axes, labels, locale, onSet }: Props) {
  const id = useId();
  const [typed, setTyped] = useState(() => axes.map(() => ''));
  const [problem, setProblem] = useState('');
  const set = (event: React.FormEvent) => {
    event.preventDefault();
    const found = axes.map((axis, i) => placeOf(axis, typed[i]!, locale));
    const wrong = found.find((one) => 'problem' in one);
    setProblem(wrong ? wrong.problem : '');
    if (wrong) return;
    onSet(found.map((one) => ('place' in one ? one.place : '')));
    setTyped(axes.map(() => ''));
  };
  return (
    <form onSubmit={set} className="mt-2">
      <div className="flex flex-wrap items-center gap-2">
        {labels.map((label, i) => (
          <label key={label} className="inline-flex items-center gap-1.5 text-[0.92rem]">
            {label}
            <input
              type="text"
              inputMode="text"
              autoComplete="off"
              maxLength={20}
              aria-describedby={`${id} problem`}
              value={typed[i]}
              onChange={(event) => setTyped(typed.with(i, event.target.value))}
              className="min-h-11 w-20 rounded-control border border-edge bg-card px-2.5"
            />
          </label>
        ))}
        <Button type="submit" className="min-h-11">
          {t('set')}
        </Button>
      </div>
      <p id={`${id} problem`} role="status" className="text-[0.85rem] text-marigold empty:hidden">
        {problem}
      </p>
    </form>
  );
}
