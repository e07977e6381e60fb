import { Check, CornerDownRight, Diff as PlusMinus, Minus, X } from 'lucide-react';
import type { Verdict } from '../../../core/kinds/contract';
import { ComponentNotes } from '../../annotations/ComponentNotes';
import { words } from '../../words';
import type { Found } from '../answerProps';

const t = words('creditMark', {
  right: 'right',
  partly: 'partly right',
  wrong: 'wrong',
  unanswered: 'not answered',
  'follow-through': 'follows from your number',
});

const SIGNS = {
  right: { Icon: Check, look: 'text-kelp' },
  partly: { Icon: PlusMinus, look: 'text-marigold' },
  wrong: { Icon: X, look: 'text-brick' },
  unanswered: { Icon: Minus, look: 'text-soft' },
  'follow-through': { Icon: CornerDownRight, look: 'text-kelp' },
} as const;

/** What was found of one component, where it is told, and the notes on it, at the place that it belongs to. */
export function CreditMark({
  credits,
  component,
}: {
  readonly credits: readonly Found[];
  readonly component: string;
}) {
  const verdict: Verdict | undefined = credits.find((credit) => credit.component === component)?.verdict;
  return (
    <>
      {verdict && <Sign verdict={verdict} />}
      <ComponentNotes component={component} />
    </>
  );
}

function Sign({ verdict }: { readonly verdict: Verdict }) {
  const { Icon, look } = SIGNS[verdict];
  return (
    <span className={`inline-flex flex-none items-center ${look}`} title={t(verdict)}>
      <Icon aria-hidden className="size-4" />
      <span className="sr-only">({t(verdict)})</span>
    </span>
  );
}
