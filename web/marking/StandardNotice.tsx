import { useEffect, useRef } from 'react';
import type { Component } from '../../core/kinds/contract';
import type { StandardTold } from '../../core/marking/api';
import { Button } from '../ui/Button';
import { SideTable } from './SideTable';
import { t } from './words';

interface Props {
  readonly told: StandardTold;
  readonly components: readonly Component[];
  readonly onRead: () => void;
}

/** What was agreed of a script that the assessor has just marked: told kindly, with the reasons. */
export function StandardNotice({ told, components, onRead }: Props) {
  const own = useRef<HTMLElement>(null);
  // Where keys go now; not to the button, which a hurried Enter would press unread.
  useEffect(() => own.current?.focus(), []);
  return (
    <section
      ref={own}
      tabIndex={-1}
      aria-label={t('standardTitle')}
      className="m-6 max-w-[46rem] rounded-card border border-line bg-card p-6"
    >
      <h2 className="font-serif text-[1.35rem] font-semibold">{t('standardTitle')}</h2>
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
    </section>
  );
}
