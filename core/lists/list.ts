/** How a list is asked for: what is searched, in which order, and which rows of it. */
export interface ListQuery {
  /** Part of a name, an address or a reference; empty for all. */
  readonly search: string;
  /** The column that decides the order; '' for the list's own order. */
  readonly sort: string;
  readonly descending: boolean;
  /** One of the list's own filters; '' for all. */
  readonly filter: string;
  readonly from: number;
  readonly size: number;
}

export const wholeList: ListQuery = {
  search: '',
  sort: '',
  descending: false,
  filter: '',
  from: 0,
  size: 100,
};

/** A piece of a list. */
export interface Page<Row> {
  readonly rows: readonly Row[];
  /** How many rows there are in all by this search and filter. */
  readonly count: number;
}
