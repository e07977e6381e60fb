import { isList, showValue, type Value } from '../../../core/programs/value';
import { t } from './caseWords';

export interface QueryTable {
  readonly columns: readonly string[];
  readonly rows: readonly (readonly Value[])[];
}

const itemsOf = (value: Value | undefined): readonly Value[] | null =>
  value !== undefined && isList(value) && value[0] === 'l' ? value.slice(1) : null;

/** The rows of a query, where a value is that. */
export function rowsIn(value: Value): QueryTable | null {
  if (!isList(value) || value[0] !== 'm') return null;
  const member = (name: string) => {
    const at = value.findIndex((one, i) => i % 2 === 1 && one === name);
    return at < 0 ? null : itemsOf(value[at + 1]);
  };
  const [columns, rows] = [member('columns'), member('rows')];
  const cells = rows?.map(itemsOf);
  if (!columns || !cells || cells.includes(null) || value.length !== 5) return null;
  return { columns: columns.map(String), rows: cells as (readonly Value[])[] };
}

const MOST_SHOWN = 20;
const cellText = (value: Value): string => (typeof value === 'string' ? value : showValue(value, 'sql'));

/** Rows as a small table; long ones as far as there is room. */
export function RowsTable({ title, table }: { readonly title: string; readonly table: QueryTable }) {
  const { columns, rows } = table;
  const more = rows.length - MOST_SHOWN;
  return (
    <div className="overflow-x-auto">
      <table className="text-[0.78rem]">
        <caption className="text-left font-sans whitespace-nowrap text-soft">{title}</caption>
        <thead>
          <tr className="border-b border-line text-left">
            {columns.map((name, i) => (
              <th key={i} scope="col" className="pr-3 font-semibold">
                {name}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {rows.slice(0, MOST_SHOWN).map((row, i) => (
            <tr key={i}>
              {row.map((cell, k) => (
                <td key={k} className="pr-3 align-top">
                  {cellText(cell)}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
      </table>
      {rows.length === 0 && <p className="font-sans text-soft">{t('noRows')}</p>}
      {more > 0 && <p className="font-sans text-soft">{t('moreRows', { count: more })}</p>}
    </div>
  );
}
