import { useEffect, useRef } from 'react';
import type { Component } from '../../core/kinds/contract';
import type { StandardTold } from '../../core/marking/api';
import { showMarks, sumMarks } from '../../core/marks';
import { Button } from '../ui/Button';
import { nameOf } from './RubricPanel';
import { t } from './words';

interface Props {
  readonly told: StandardTold;
  readonly components: readonly Component[];
  readonly onRead: () => void;
}

const totalOf = (marks: StandardTold['yours']) => showMarks(sumMarks(marks.map((mark) => mark.hundredths)));

/** What was agreed of a script that the assessor has just marked: told kindly, with the reasons. */
export function StandardNotice({ told, components, onRead }: Props) {
  const of = (marks: StandardTold['yours'], key: string) => marks.find((mark) => mark.component === key);
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
      <table className="w-full">
        <thead>
          <tr className="border-b border-line text-left text-[0.85rem] text-soft">
            <th scope="col" className="py-1 font-semibold">
              {t('criterion')}
            </th>
            <th scope="col" className="py-1 text-right font-semibold">
              {t('yours')}
            </th>
            <th scope="col" className="py-1 text-right font-semibold">
              {t('agreed')}
            </th>
          </tr>
        </thead>
        <tbody>
          {components.map((component) => (
            <tr key={component.key} className="border-b border-line/70">
              <th scope="row" className="py-1 text-left font-normal">
                {nameOf(component)}
              </th>
              {[told.yours, told.agreed].map((marks, i) => (
                <td key={i} className="py-1 text-right">
                  {showMarks(of(marks, component.key)?.hundredths ?? 0)}
                </td>
              ))}
            </tr>
          ))}
          <tr>
            <th scope="row" className="py-1 text-left">
              {t('inAll')}
            </th>
            <td className="py-1 text-right font-semibold">{totalOf(told.yours)}</td>
            <td className="py-1 text-right font-semibold">{totalOf(told.agreed)}</td>
          </tr>
        </tbody>
      </table>
      <p className="py-3">
        <b>{t('agreedWhy')}</b> {told.reason}
      </p>
      <Button look="first" onClick={onRead}>
        {t('goOn')}
      </Button>
    </section>
  );
}
