import { circleIn, isTrue } from '../../formulas/evaluate';
import { namesIn, siblingsIn, sidesOf, type Formula } from '../../formulas/formula';
import { message, type Message } from '../../messages/message';
import type { Issue } from '../contract';
import { hasTwice, isSameOption, keysOf } from '../shared/entries';
import { severe } from '../shared/issues';
import type { CellKey } from './content';
import { cellsOf, entriesOf } from './response';
import { keyOf, rightFigures, type TableContent } from './rightFigures';

/** The formulas by which a cell is judged. */
const formulasOf = (right: CellKey): Formula[] => {
  if (right.by === 'figure') return right.formula ? [right.formula] : [];
  return right.cases.flatMap(({ when }) => sidesOf(when));
};

export const siblingsOf = ({ key }: TableContent) => key.cells.flatMap(formulasOf).flatMap(siblingsIn);

function issuesOfLayout({ asked }: TableContent): Issue[] {
  const { columns, rows, heads } = asked;
  const issues: Issue[] = [];
  if (hasTwice(keysOf(columns))) issues.push(severe(['asked', 'columns'], message('author.sameKey')));
  if (hasTwice(keysOf(rows))) issues.push(severe(['asked', 'rows'], message('author.sameKey')));
  const wide = heads.reduce((sum, head) => sum + head.columns, 0);
  if (heads.length > 0 && wide !== columns.length)
    issues.push(severe(['asked', 'heads'], message('table-entry.heads')));
  rows.forEach((row, i) => {
    if (row.cells.length !== columns.length)
      issues.push(severe(['asked', 'rows', i, 'cells'], message('table-entry.cellCount')));
  });
  columns.forEach((column, i) => {
    if (
      column.sort === 'list' &&
      (column.options.length < 2 || hasTwice(column.options.map((one) => one.trim())))
    )
      issues.push(severe(['asked', 'columns', i, 'options'], message('table-entry.options')));
  });
  return issues;
}

/** Names that are no cells with figures, and formulas that turn in a circle. */
function issuesOfFormulas({ asked, key }: TableContent): Issue[] {
  const figures = cellsOf(asked).filter(({ column }) => column.sort === 'figure');
  const names = figures.map(({ name }) => name);
  const built = new Map<string, string[]>();
  for (const { name, cell } of cellsOf(asked)) {
    const right = keyOf(key, name);
    const formulas = cell.is === 'total' ? [cell.formula] : right ? formulasOf(right) : [];
    built.set(name, formulas.flatMap(namesIn));
  }
  const issues = [...built].flatMap(([cell, on]) =>
    on
      .filter((name) => !names.includes(name))
      .map((name) => severe(['key', 'cells', cell], message('formula.noName', { name }))),
  );
  // What is worked out on the page is worked out on the device, which knows nothing of other parts.
  for (const { name, cell } of cellsOf(asked))
    if (cell.is === 'total' && siblingsIn(cell.formula).length > 0)
      issues.push(severe(['asked', 'rows', name], message('table-entry.totalSibling')));
  const circle = circleIn(built);
  if (circle) issues.push(severe(['key', 'cells'], message('formula.circle', { names: circle.join(' → ') })));
  return issues;
}

function wrongOf(content: TableContent, right: CellKey): Message | null {
  const place = entriesOf(content.asked).find(({ name }) => name === right.cell);
  if (!place) return message('table-entry.noCell', { cell: right.cell });
  if (place.column.sort !== right.by) return message('table-entry.otherSort', { cell: right.cell });
  const figures = { named: rightFigures(content), sibling: () => null };
  if (right.by === 'figure') {
    const figure = figures.named(right.cell);
    if (!figure) return message('table-entry.noRight', { cell: right.cell });
    return figure.over < 0n && !place.column.minus ? message('table-entry.minusNeeded') : null;
  }
  if (right.by === 'list') {
    const named = [right.right, ...right.cases.map((one) => one.right)];
    if (named.some((one) => !place.column.options.some((option) => isSameOption(option, one))))
      return message('table-entry.rightNotListed', { cell: right.cell });
  }
  // By the right figures the cases must come to the same as the key, where they decide at all.
  const first = right.cases.find(({ when }) => isTrue(when, figures) === true);
  if (!first) return null;
  const agree =
    right.by === 'list'
      ? 'right' in first && first.right === right.right
      : 'accepted' in first && first.accepted.some((one) => right.accepted.includes(one));
  return agree ? null : message('table-entry.caseDiffers', { cell: right.cell });
}

/** Contradictions of a table and its key. */
export function checkTable(content: TableContent): Issue[] {
  const layout = issuesOfLayout(content);
  if (layout.length > 0) return layout;
  const { asked, key } = content;
  const issues = issuesOfFormulas(content);
  if (hasTwice(key.cells.map(({ cell }) => cell)))
    issues.push(severe(['key', 'cells'], message('author.sameKey')));
  key.cells.forEach((right, i) => {
    const wrong = wrongOf(content, right);
    if (wrong) issues.push(severe(['key', 'cells', i], wrong));
  });
  const empty = entriesOf(asked).some(({ name }) => !keyOf(key, name));
  if (empty && !asked.mayStayEmpty)
    issues.push(severe(['asked', 'mayStayEmpty'], message('table-entry.someEmpty')));
  return issues;
}
