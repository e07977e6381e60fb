import { useEffect, useRef } from 'react';
import type { MarkingScript, MarkStanding } from '../../core/marking/api';
import type { MarkDraft } from '../../core/marking/mark';
import { marksGiven } from '../../core/marking/marksGiven';
import { Button } from '../ui/Button';
import { SideTable } from './SideTable';
import { t } from './words';

/** A mark that was made without seeing the one that stands, as from another window. */
export interface Stale {
  readonly script: MarkingScript;
  readonly mark: MarkDraft;
  readonly standing: MarkStanding;
}

interface Props {
  readonly stale: Stale;
  readonly onKeep: () => void;
  readonly onReplace: () => void;
}

/** Both marks of one script side by side: its assessor decides which one stands. */
export function StaleMark({ stale: { script, mark, standing }, onKeep, onReplace }: Props) {
  const own = useRef<HTMLElement>(null);
  // Where keys go now; not to a button, which a hurried Enter would press unread.
  useEffect(() => own.current?.focus(), []);
  return (
    <section
      ref={own}
      tabIndex={-1}
      aria-label={t('staleTitle')}
      className="m-6 max-w-[46rem] overflow-y-auto rounded-card border border-line bg-card p-6"
    >
      <h2 className="font-serif text-[1.35rem] font-semibold">{t('staleTitle')}</h2>
      <p className="py-2">{t('staleText', { script: script.script })}</p>
      <SideTable
        components={script.components}
        sides={[
          { head: t('staleStanding'), given: standing.given, comment: standing.comment },
          {
            head: t('staleNow'),
            given: marksGiven(script.components, mark.given).marks,
            comment: mark.comment,
          },
        ]}
      />
      <div className="flex flex-wrap gap-3 pt-4">
        <Button onClick={onKeep}>{t('staleKeep')}</Button>
        <Button onClick={onReplace}>{t('staleReplace')}</Button>
      </div>
    </section>
  );
}
