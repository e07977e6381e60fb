import type { ListQuery, Page } from '../../core/lists/list';
import type { Clock } from '../machine/clock';
import type { Config } from '../config';
import { Helper } from '../helpers/helper';
import type { Listing, Read } from './read';

export const exportFormats = ['csv', 'xlsx'] as const;
export type ExportFormat = (typeof exportFormats)[number];

export interface ListAsked {
  readonly listing: string;
  readonly owner: unknown;
  readonly query: ListQuery;
  readonly now: number;
}

export interface ExportAsked extends ListAsked {
  readonly columns: readonly string[];
  readonly format: ExportFormat;
}

export interface ReadAsked {
  readonly read: string;
  readonly input: unknown;
  readonly now: number;
}

const LIMIT_MS = 30_000;

/** Reads lists and reports for staff in a process of its own, by its own connection to the database, which cannot write. */
export class Reader {
  private readonly helper: Helper;
  private readonly clock: Clock;

  constructor(config: Config, clock: Clock) {
    this.clock = clock;
    const script = new URL('../readingHelper.ts', import.meta.url);
    this.helper = new Helper({ script, data: config, limitMs: LIMIT_MS });
  }

  warmUp(): Promise<void> {
    return this.helper.warmUp();
  }

  read<Input, Result>({ name }: Read<Input, Result>, input: Input): Promise<Result> {
    return this.helper.ask('read', { read: name, input, now: this.clock.now() } satisfies ReadAsked);
  }

  list<Owner, Row>({ name }: Listing<Owner, Row>, owner: Owner, query: ListQuery): Promise<Page<Row>> {
    const asked: ListAsked = { listing: name, owner, query, now: this.clock.now() };
    return this.helper.ask('list', asked);
  }

  /** A list as a file, with all its rows by this search, filter and order. */
  export<Owner, Row>(
    { name }: Listing<Owner, Row>,
    owner: Owner,
    as: Pick<ExportAsked, 'query' | 'columns' | 'format'>,
  ): Promise<Uint8Array> {
    const asked: ExportAsked = { listing: name, owner, ...as, now: this.clock.now() };
    return this.helper.ask('export', asked);
  }

  close(): void {
    this.helper.close();
  }
}

export interface HasReader {
  readonly reader: Reader;
}
