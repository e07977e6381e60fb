import { useCallback, useMemo, useState, type ReactNode } from 'react';
import { phrasesIn } from '../../core/documents/phrasesIn';
import type { Question } from '../../core/papers/candidatePaper';
import { PhrasesInUse, type PhraseUse } from '../documents/phrases';
import { PhraseDeskContext } from './phraseDesk';

/**
 * Lets the parts of a question work with the phrases of its source. Several parts may: the one that was touched last has
 * the phrases, or else the first.
 */
export function PhraseScope({
  inView,
  children,
}: {
  readonly inView: Question;
  readonly children: ReactNode;
}) {
  const [uses, setUses] = useState<ReadonlyMap<string, PhraseUse>>(new Map());
  const [touched, touch] = useState<string | null>(null);
  const use = useCallback(
    (target: string, own: PhraseUse | null) =>
      setUses((before) => {
        const next = new Map(before);
        if (own) next.set(target, own);
        else next.delete(target);
        return next;
      }),
    [],
  );
  const phrases = useMemo(() => phrasesIn(inView.source?.tabs.map((tab) => tab.body) ?? []), [inView.source]);
  const desk = useMemo(() => ({ phrases, use, touch }), [phrases, use]);
  const targets = inView.parts.map((part) => part.target).filter((target) => uses.has(target));
  const active = targets.find((target) => target === touched) ?? targets[0];
  return (
    <PhraseDeskContext value={desk}>
      <PhrasesInUse value={active === undefined ? null : uses.get(active)!}>{children}</PhrasesInUse>
    </PhraseDeskContext>
  );
}
