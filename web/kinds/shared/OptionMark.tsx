import { Check } from 'lucide-react';

/** Round where one is chosen, square where several are. */
export function OptionMark({ round, on }: { readonly round: boolean; readonly on: boolean }) {
  return (
    <span
      aria-hidden
      className={`grid size-[1.15rem] flex-none place-items-center border-[1.6px] ${round ? 'rounded-full' : 'rounded'} ${on ? 'border-kelp bg-kelp text-on' : 'border-soft bg-card'}`}
    >
      {on &&
        (round ? (
          <span className="size-2 rounded-full bg-on" />
        ) : (
          <Check className="size-3.5" strokeWidth={3} />
        ))}
    </span>
  );
}

/** Around what has its field hidden: the ring of the field. */
export const FIELD_RING =
  'has-[input:focus-visible]:outline-3 has-[input:focus-visible]:outline-offset-2 has-[input:focus-visible]:outline-kelp';
