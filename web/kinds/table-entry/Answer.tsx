import { Undo2 } from 'lucide-react';
import { useEffect, useEffectEvent, useId, useRef, useState } from 'react';
import { complaintAt, showTotal } from '../../../core/kinds/table-entry/candidate';
import {
  entriesOf,
  titleOf,
  type CellPlace,
  type TableResponse,
  type TableShown,
} from '../../../core/kinds/table-entry/response';
import { Button } from '../../ui/Button';
import { say as sayMessage, words } from '../../words';
import { announce as say } from '../../ui/announce';
import type { AnswerProps } from '../answerProps';
import { blockOf, pasteBlock } from './pasteBlock';
import { TableFrame } from './TableFrame';

const t = words('tableAnswer', {
  how: 'Use the arrow keys, Tab and Enter to move. You can paste a block of cells from a spreadsheet.',
  howSource: 'Press a marked number in the source to copy it into the selected cell.',
  choose: 'choose …',
  total: 'calculated',
  unreadTotal: '–',
  pasted_one: '{{count}} cell was filled.',
  pasted_other: '{{count}} cells were filled.',
  pastedLeft: '{{text}} {{left}} pasted cells did not fit.',
  undo: 'Undo',
  undone: 'Undone.',
  copied: '{{text}} is copied into {{cell}}.',
  noCell: 'Press a cell first, then the number.',
});

type Props = AnswerProps<TableShown, TableResponse>;

interface CellProps {
  readonly place: CellPlace;
  readonly table: TableShown;
  readonly response: TableResponse;
  readonly needId: string;
  readonly onType: (text: string) => void;
  readonly onFocus: () => void;
  readonly onPaste: (event: React.ClipboardEvent) => void;
  readonly onKeyDown: (event: React.KeyboardEvent<HTMLInputElement | HTMLSelectElement>) => void;
}

const FIELD =
  'min-h-11 w-full rounded-control border bg-card px-2 desk:min-h-9 data-over:outline-2 data-over:outline-kelp';

function EntryCell({ place, table, response, needId, onType, onFocus, onPaste, onKeyDown }: CellProps) {
  const id = useId();
  const value = response.cells[place.name] ?? '';
  const complaint = complaintAt(table, response, place);
  const { column } = place;
  const common = {
    'aria-label': titleOf(place),
    'aria-describedby': complaint ? id : needId,
    'data-cell': place.name,
    'data-drop': '',
    value,
    onFocus,
    onKeyDown,
  };
  if (column.sort === 'list')
    return (
      <select {...common} onChange={(event) => onType(event.target.value)} className={`${FIELD} border-edge`}>
        <option value="">{t('choose')}</option>
        {column.options.map((option) => (
          <option key={option}>{option}</option>
        ))}
      </select>
    );
  const figure = column.sort === 'figure';
  return (
    <>
      <input
        {...common}
        type="text"
        inputMode={figure && !column.minus ? 'decimal' : 'text'}
        autoComplete="off"
        autoCapitalize="off"
        spellCheck={false}
        maxLength={200}
        aria-invalid={complaint !== null}
        onChange={(event) => onType(event.target.value)}
        onPaste={onPaste}
        className={`${FIELD} ${figure ? 'text-right tabular-nums' : ''} ${complaint ? 'border-marigold' : 'border-edge'}`}
      />
      {complaint && (
        <p id={id} className="mt-0.5 max-w-44 text-[0.8rem] leading-tight text-marigold">
          {sayMessage(complaint)}
        </p>
      )}
    </>
  );
}

/** Is the caret at this end of the text, so that an arrow key leaves the cell? */
function isAtEnd(field: HTMLInputElement | HTMLSelectElement, end: 'left' | 'right'): boolean {
  if (field instanceof HTMLSelectElement) return true;
  const { selectionStart, selectionEnd, value } = field;
  if (selectionStart !== selectionEnd) return false;
  return selectionStart === (end === 'left' ? 0 : value.length);
}

/** A ledger or a statement to be filled in. */
export function Answer({ shown: table, response, onChange, promptId, needId, source }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const [at, setAt] = useState<string | null>(null);
  const [undoable, setUndoable] = useState<{ readonly before: TableResponse; readonly text: string } | null>(
    null,
  );
  const [hint, setHint] = useState('');
  const entries = entriesOf(table);

  const type = (name: string, text: string) => {
    setUndoable(null);
    setHint('');
    onChange({ cells: { ...response.cells, [name]: text } });
  };
  /** The nearest cell to fill in, in a row or column from here. */
  const move = (from: CellPlace, down: number, across: number): boolean => {
    const rows = table.rows.map(({ key }) => key);
    const columns = table.columns.map(({ key }) => key);
    let [row, column] = [rows.indexOf(from.row.key), columns.indexOf(from.column.key)];
    for (;;) {
      row += down;
      column += across;
      if (row < 0 || column < 0 || row >= rows.length || column >= columns.length) return false;
      const field = frame.current?.querySelector<HTMLElement>(
        `[data-cell="${rows[row]}_${columns[column]}"]`,
      );
      if (!field) continue;
      field.focus();
      if (field instanceof HTMLInputElement) field.select();
      return true;
    }
  };
  const onKeyDown =
    (place: CellPlace) => (event: React.KeyboardEvent<HTMLInputElement | HTMLSelectElement>) => {
      const field = event.currentTarget;
      // A list has its own use for up and down.
      const isList = field instanceof HTMLSelectElement;
      const moves: Readonly<Record<string, () => boolean>> = {
        Enter: () => move(place, event.shiftKey ? -1 : 1, 0),
        ArrowDown: () => !isList && move(place, 1, 0),
        ArrowUp: () => !isList && move(place, -1, 0),
        ArrowLeft: () => isAtEnd(field, 'left') && move(place, 0, -1),
        ArrowRight: () => isAtEnd(field, 'right') && move(place, 0, 1),
      };
      if (moves[event.key]?.()) event.preventDefault();
    };
  const onPaste = (place: CellPlace) => (event: React.ClipboardEvent) => {
    const block = blockOf(event.clipboardData.getData('text/plain'));
    if (!block) return;
    event.preventDefault();
    const pasted = pasteBlock(table, response, place, block);
    const filled = t('pasted', { count: pasted.filled });
    const text = pasted.left > 0 ? t('pastedLeft', { text: filled, left: pasted.left }) : filled;
    setUndoable({ before: response, text });
    onChange(pasted.response);
    say(text);
  };

  const copy = useEffectEvent((phrase: string, to: string | null) => {
    const text = source.phrases.find(({ name }) => name === phrase)?.text;
    const place = entries.find(({ name }) => name === to);
    if (text === undefined) return;
    if (!place || place.column.sort === 'list') return setHint(t('noCell'));
    type(place.name, text);
    say(t('copied', { text, cell: titleOf(place) }));
  });
  const lastAt = useEffectEvent(() => at);
  /** The cell of this table over which something was let go. */
  const cellAt = (over: Element | null): string | null => {
    const cell = over?.closest('td')?.querySelector<HTMLElement>('[data-cell]');
    return cell && frame.current?.contains(cell) ? cell.dataset.cell! : null;
  };
  const { use, phrases } = source;
  const canCopy = phrases.length > 0;
  useEffect(() => {
    if (!canCopy) return;
    use({
      how: 'pick',
      chosen: new Set(),
      onPress: (name) => copy(name, lastAt()),
      onDrop: (name, over) => copy(name, cellAt(over)),
    });
    return () => use(null);
  }, [canCopy, use]);

  return (
    <div role="group" aria-labelledby={promptId}>
      <div ref={frame}>
        <TableFrame
          table={table}
          caption={table.caption}
          entry={(place) => (
            <EntryCell
              place={place}
              table={table}
              response={response}
              needId={needId}
              onType={(text) => type(place.name, text)}
              onFocus={() => setAt(place.name)}
              onPaste={onPaste(place)}
              onKeyDown={onKeyDown(place)}
            />
          )}
          total={(place) => (
            <output aria-label={titleOf(place)} title={t('total')} className="font-semibold">
              {showTotal(table, response, place.name) ?? t('unreadTotal')}
            </output>
          )}
        />
      </div>
      <p className="mt-1.5 text-[0.85rem] text-soft">{t('how')}</p>
      {canCopy && <p className="text-[0.85rem] text-soft">{t('howSource')}</p>}
      {undoable && (
        <p className="mt-1 flex flex-wrap items-center gap-2 text-[0.92rem]">
          {undoable.text}
          <Button
            className="min-h-11"
            onClick={() => {
              onChange(undoable.before);
              setUndoable(null);
              say(t('undone'));
            }}
          >
            <Undo2 aria-hidden className="size-4" /> {t('undo')}
          </Button>
        </p>
      )}
      <p role="status" className="text-[0.88rem] text-marigold empty:hidden">
        {hint}
      </p>
    </div>
  );
}
