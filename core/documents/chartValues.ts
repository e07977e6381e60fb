import { inlineAsText } from './documentAsText';
import type { ChartNode, TableNode } from './document';

export interface ChartValues {
  /** What stands in the first column, row by row. */
  readonly categories: readonly string[];
  readonly series: readonly { readonly name: string; readonly values: readonly (number | null)[] }[];
}

/**
 * A figure of a chart's table as it is drawn: with a point or a comma for decimals, spaces between groups, a percent sign;
 * null for an empty cell or a dash, NaN for anything else.
 */
export function chartFigure(text: string): number | null {
  const plain = text.replace(/[\s\u00a0\u202f%]/g, '').replace(/^[−–](?=\d)/, '-');
  if (plain === '' || /^[-–—]$/.test(plain)) return null;
  return /^[+-]?\d+([.,]\d+)?$/.test(plain) ? Number(plain.replace(',', '.')) : NaN;
}

/** The figures of a chart's table, as they are drawn. */
export function chartValues({ head, rows }: TableNode): ChartValues {
  const cell = (row: TableNode['head'], column: number) => inlineAsText(row[column] ?? []).trim();
  return {
    categories: rows.map((row) => cell(row, 0)),
    series: head.slice(1).map((_, i) => ({
      name: cell(head, i + 1),
      values: rows.map((row) => chartFigure(cell(row, i + 1))),
    })),
  };
}

const MOST_ROWS = 500;
const MOST_SERIES = 8;

/** What keeps a table from being drawn as a chart; null where nothing does. */
export function chartProblem(
  chart: ChartNode['chart'],
  table: TableNode,
): { readonly code: string; readonly values: Readonly<Record<string, string | number>> } | null {
  const { categories, series } = chartValues(table);
  if (series.length === 0 || series.length > MOST_SERIES)
    return { code: 'chartSeries', values: { most: MOST_SERIES } };
  if (categories.length === 0 || categories.length > MOST_ROWS)
    return { code: 'chartRows', values: { most: MOST_ROWS } };
  // Points stand where their first column says; for lines and bars it only names them.
  const across = chart === 'points' ? categories.map(chartFigure) : [];
  const broken = [...across, ...series.flatMap((one) => one.values)].some(Number.isNaN);
  if (broken || across.includes(null)) return { code: 'chartFigures', values: {} };
  return null;
}
