import { Check, CircleAlert } from 'lucide-react';
import type { PageStanding } from './pageBox';

interface Props {
  readonly standing: PageStanding;
  /** Words for it; `percent` is how much of it is sent. */
  readonly say: (at: PageStanding['at'], percent: number) => string;
}

/** How far a page is, by a sign and in words. */
export function StandingSign({ standing, say }: Props) {
  const { at } = standing;
  const told = say(at, at === 'sending' ? Math.round(100 * standing.share) : 100);
  if (at === 'here')
    return (
      <span className="flex items-center gap-1 text-kelp">
        <Check aria-hidden className="size-4" /> {told}
      </span>
    );
  if (at === 'unreadable' || at === 'refused')
    return (
      <span className="flex items-start gap-1 text-brick">
        <CircleAlert aria-hidden className="mt-0.5 size-4 flex-none" /> {told}
      </span>
    );
  return <span className="text-soft">{told}</span>;
}
