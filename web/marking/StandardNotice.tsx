import type { Component } from '../../core/kinds/contract';
import type { StandardTold } from '../../core/marking/api';
import { Button } from '../ui/Button';
import { ReadFirst } from './ReadFirst';
import { SideTable } from './SideTable';
import { t } from './words';

interface Props {
  readonly told: StandardTold;
  readonly components: readonly Component[];
  readonly onRead: () => void;
}

/** What was agreed of a script that the assessor has just marked: told kindly, with the reasons. */
export function StandardNotice({ told, components, onRead }: Props) {
  return (
    <ReadFirst title={t('standardTitle')}>
      <p className="py-2">
        {told.practice
          ? t(told.within ? 'practiceWithin' : 'practiceOutside')
          : t(told.drifted ? 'standardDrifted' : 'standardOutside')}
      </p>
      <SideTable
        components={components}
        sides={[
          { head: t('yours'), given: told.yours },
          { head: t('agreed'), given: told.agreed },
        ]}
      />
      <p className="py-3">
        <b>{t('agreedWhy')}</b> {told.reason}
      </p>
      <Button look="first" onClick={onRead}>
        {t('goOn')}
      </Button>
    </ReadFirst>
  );
}
