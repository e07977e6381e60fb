import type { Component } from '../../core/kinds/contract';
import type { GivenMark } from '../../core/marking/marksGiven';
import { showMarks, sumMarks } from '../../core/marks';
import { nameOf } from './RubricPanel';
import { t } from './words';

export interface TableSide {
  /** Whose marks these are. */
  readonly head: string;
  readonly given: readonly GivenMark[];
  readonly comment?: string;
}

const HEAD = 'py-1.5 pr-3 pl-1 text-left';
const labelOf = (component: Component, level: number | null | undefined) =>
  level == null ? '' : (component.criterion?.levels?.[level]?.label ?? '');

/** Marks of one response side by side, criterion by criterion; where they differ, that is marked. */
export function SideTable({
  components,
  sides,
}: {
  readonly components: readonly Component[];
  readonly sides: readonly TableSide[];
}) {
  return (
    <table className="w-full">
      <thead>
        <tr className="border-b border-line text-left text-[0.85rem] text-soft">
          {[t('criterion'), ...sides.map(({ head }) => head)].map((head) => (
            <th key={head} scope="col" className="py-1.5 font-semibold">
              {head}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {components.map((component) => {
          const marks = sides.map(({ given }) => given.find((mark) => mark.component === component.key));
          const differ = new Set(marks.map((mark) => mark?.hundredths)).size > 1;
          return (
            <tr key={component.key} className={`border-b border-line/70 ${differ ? 'bg-marigold-wash' : ''}`}>
              <th scope="row" className={HEAD}>
                {nameOf(component)}
              </th>
              {marks.map((mark, i) => (
                <td key={i} className="py-1.5">
                  <b>{showMarks(mark?.hundredths ?? 0)}</b>{' '}
                  <span className="text-[0.88rem] text-soft">{labelOf(component, mark?.level)}</span>
                </td>
              ))}
            </tr>
          );
        })}
        <tr>
          <th scope="row" className={HEAD}>
            {t('inAll')}
          </th>
          {sides.map(({ given }, i) => (
            <td key={i} className="py-1.5 text-[1.15rem] font-semibold">
              {showMarks(sumMarks(given.map((mark) => mark.hundredths)))}
            </td>
          ))}
        </tr>
        {sides.some(({ comment = '' }) => comment !== '') && (
          <tr className="align-top text-[0.88rem]">
            <th scope="row" className={HEAD}>
              {t('commentShort')}
            </th>
            {sides.map(({ comment }, i) => (
              <td key={i} className="py-1.5 pr-2 text-soft">
                {comment}
              </td>
            ))}
          </tr>
        )}
      </tbody>
    </table>
  );
}
