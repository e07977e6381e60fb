import { showTotal } from '../../../core/kinds/table-entry/candidate';
import { typedIn, type TableResponse, type TableShown } from '../../../core/kinds/table-entry/response';
import { words } from '../../words';
import type { ReadingProps } from '../answerProps';
import { CreditMark } from '../shared/CreditMark';
import { TableFrame } from './TableFrame';

const t = words('tableReading', { empty: 'empty', right: 'right: {{text}}' });

/** The table as it was filled in, with what was found at each cell, and what was meant below it. */
export function Reading({ shown: table, response, right, credits }: ReadingProps<TableShown, TableResponse>) {
  const isAccepted = (name: string) => {
    const verdict = credits.find((credit) => credit.component === name)?.verdict;
    return verdict === 'right' || verdict === 'follow-through';
  };
  return (
    <TableFrame
      table={table}
      caption={table.caption}
      total={({ name }) => showTotal(table, response, name)}
      entry={({ name }) => {
        const typed = typedIn(response, name);
        const wanted = right && !isAccepted(name) ? typedIn(right, name) : '';
        return (
          <span className="block px-1 py-1">
            <span className="inline-flex items-center gap-1.5">
              <CreditMark credits={credits} component={name} />
              {typed === '' ? <span className="font-normal text-soft">{t('empty')}</span> : typed}
            </span>
            {wanted !== '' && wanted !== typed && (
              <span className="block text-[0.85em] font-normal text-kelp">
                {t('right', { text: wanted })}
              </span>
            )}
          </span>
        );
      }}
    />
  );
}
