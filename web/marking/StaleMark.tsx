import type { MarkingScript, MarkStanding } from '../../core/marking/api';
import type { MarkDraft } from '../../core/marking/mark';
import { marksGiven } from '../../core/marking/marksGiven';
import { Button } from '../ui/Button';
import { ReadFirst } from './ReadFirst';
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
  return (
    <ReadFirst title={t('staleTitle')}>
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
    </ReadFirst>
  );
}
