import type { ListQuery, Page } from '../../core/lists/list';
import type { Clock } from '../machine/clock';
import type { Config } from '../config';
import type { Db } from '../db/open';

/** What reading needs: a database that is not written to, the time of the question, and the settings. */
export interface Reading {
  readonly db: Db;
  readonly clock: Clock;
  readonly config: Config;
}

/** Something that staff look up, by name: it is read in a process of its own. */
export interface Read<Input, Result> {
  readonly name: string;
  readonly run: (reading: Reading, input: Input) => Result;
}

export type Cell = string | number | Date | null;

/** A column of a table that follows from what is listed, as one for each question. */
export interface Column<Row> {
  readonly head: string;
  readonly cell: (row: Row) => Cell;
}

/** A list: its rows by search, filter and order, a piece at a time, and what a row is in an exported table. */
export interface Listing<Owner, Row> {
  readonly name: string;
  readonly list: (reading: Reading, owner: Owner, query: ListQuery) => Page<Row>;
  /** By column, in their order; the words of a column are `list.<column>`. */
  readonly cells: Readonly<Record<string, (row: Row) => Cell>>;
  /** Further columns of an exported table, behind those. */
  readonly more?: (reading: Reading, owner: Owner) => readonly Column<Row>[];
  /** The filters that it knows; without them it has none. */
  readonly filters?: (reading: Reading, owner: Owner) => readonly string[];
}

/** The pattern of a search in SQL `like … escape '\'`. */
export const likeOf = (search: string): string => `%${search.replace(/[\\%_]/g, '\\$&')}%`;
