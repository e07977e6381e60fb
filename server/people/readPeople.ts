import Joi from 'joi';
import Papa from 'papaparse';
import { message, type Message } from '../../core/messages/message';
import {
  peopleColumns,
  type ColumnMap,
  type PeopleColumn,
  type PersonRow,
} from '../../core/people/importApi';

const MOST_ROWS = 10_000;
const MOST_COLUMNS = 100;
/** Longer than any name, address or reference may be: only so much of a cell is ever looked at. */
const MOST_CELL = 300;
const MOST_HEADING = 60;

/** How headings are written, in small letters without signs. */
const HEADINGS: Record<PeopleColumn, readonly string[]> = {
  name: ['name', 'fullname', 'candidate', 'candidatename', 'nom', 'navn', 'nome', 'nombre'],
  email: ['email', 'mail', 'emailaddress', 'address', 'courriel', 'correo', 'epost'],
  reference: ['reference', 'ref', 'number', 'candidatenumber', 'id', 'referencenumber'],
  extraPercent: ['extratime', 'extra', 'extrapercent', 'extratimepercent', 'timeextension'],
  breakMinutes: ['breaks', 'breakminutes', 'restbreaks', 'restbreaksmin', 'breaksminutes'],
  timeZone: ['timezone', 'zone', 'tz'],
};

/** Text of unknown encoding: by its mark, as UTF-8 where that fits, else as Windows does in the west. */
export function decodeText(bytes: Uint8Array): string {
  const [a, b] = bytes;
  if (a === 0xff && b === 0xfe) return new TextDecoder('utf-16le').decode(bytes);
  if (a === 0xfe && b === 0xff) return new TextDecoder('utf-16be').decode(bytes);
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes);
  } catch {
    return new TextDecoder('windows-1252').decode(bytes);
  }
}

const plain = (heading: string) =>
  heading
    .slice(0, MOST_HEADING)
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z]/g, '');

/** Which column holds what, by the headings; two candidates for one thing: the first. */
export function guessColumns(headings: readonly string[]): ColumnMap {
  const found = (column: PeopleColumn) => {
    const index = headings.findIndex((heading) => HEADINGS[column].includes(plain(heading)));
    return [column, index < 0 ? null : index] as const;
  };
  return Object.fromEntries(peopleColumns.map(found)) as ColumnMap;
}

/** A row as it was read; what it means for the round is not known yet. */
export type ReadRow = Omit<PersonRow, 'state' | 'knownAs'>;

export type PeopleRead =
  | { readonly problem: Message; readonly headings: readonly string[]; readonly columns: ColumnMap }
  | { readonly rows: readonly ReadRow[]; readonly headings: readonly string[]; readonly columns: ColumnMap };

const email = Joi.string().max(200).email({ tlds: false });
/** Named once: to ask for them takes half a millisecond. */
const zones = new Set(['UTC', ...Intl.supportedValuesOf('timeZone')]);

/** A whole number from 0, with or without a sign of per cent; an empty cell is 0. */
function wholeNumber(text: string, most: number): number | null {
  if (text === '') return 0;
  const digits = /^(\d{1,3})\s{0,3}(?:%|min\.?)?$/.exec(text)?.[1];
  return digits !== undefined && Number(digits) <= most ? Number(digits) : null;
}

function readRow(cells: readonly string[], line: number, columns: ColumnMap): ReadRow {
  const cell = (column: PeopleColumn) => {
    const index = columns[column];
    return index === null ? '' : (cells[index] ?? '').trim().slice(0, MOST_CELL);
  };
  const errors: Message[] = [];
  const refuse = (key: string, values?: Message['values']) => errors.push(message(`import.${key}`, values));
  const [name, address] = [cell('name').replace(/\s+/g, ' '), cell('email').toLowerCase()];
  if (name.length < 2 || name.length > 100) refuse('noName');
  if (address === '') refuse('noEmail');
  else if (email.validate(address).error) refuse('badEmail', { email: address.slice(0, 100) });
  const reference = cell('reference') || null;
  if (reference !== null && !/^[A-Z0-9-]{3,20}$/.test(reference))
    refuse('badReference', { reference: reference.slice(0, 100) });
  const extra = wholeNumber(cell('extraPercent'), 200);
  if (extra === null) refuse('badExtra', { extra: cell('extraPercent').slice(0, 100) });
  const breaks = wholeNumber(cell('breakMinutes'), 120);
  if (breaks === null) refuse('badBreaks', { breaks: cell('breakMinutes').slice(0, 100) });
  const timeZone = cell('timeZone') || null;
  if (timeZone !== null && !zones.has(timeZone)) refuse('badZone', { zone: timeZone.slice(0, 100) });
  return {
    line,
    name,
    email: address,
    reference,
    timeZone,
    errors,
    extraPercent: extra ?? 0,
    breakMinutes: breaks ?? 0,
  };
}

/**
 * Reads a list of people from CSV or pasted rows. `wanted` says which column is what where the headings do not. Takes time
 * in proportion to the length of the file, whatever is in it; called in a helper process only.
 */
export function readPeople(bytes: Uint8Array, wanted: ColumnMap | null): PeopleRead {
  const text = decodeText(bytes).replace(/^\u{feff}/u, '');
  const { data } = Papa.parse<string[]>(text, {
    skipEmptyLines: 'greedy',
    delimitersToGuess: [',', ';', '\t', '|'],
    preview: MOST_ROWS + 2,
  });
  const [first = [], ...lines] = data;
  const headings = first.slice(0, MOST_COLUMNS).map((heading) => heading.slice(0, MOST_HEADING));
  const columns = wanted ?? guessColumns(headings);
  const problem = (key: string, values?: Message['values']): PeopleRead => ({
    problem: message(`import.${key}`, values),
    headings,
    columns,
  });
  if (first.length > MOST_COLUMNS) return problem('tooManyColumns', { most: MOST_COLUMNS });
  if (lines.length === 0) return problem('noRows');
  if (lines.length > MOST_ROWS) return problem('tooManyRows', { most: MOST_ROWS });
  if (columns.name === null || columns.email === null) return problem('noColumn');
  const seen = new Map<string, number>();
  const rows = lines.map((cells, i) => {
    const row = readRow(cells, i + 2, columns);
    const before = seen.get(row.email);
    if (before === undefined) seen.set(row.email, row.line);
    return before === undefined || row.email === ''
      ? row
      : { ...row, errors: [...row.errors, message('import.twiceInFile', { line: before })] };
  });
  return { rows, headings, columns };
}
