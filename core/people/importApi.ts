import type { Message } from '../messages/message';

/** What a column of a list of people can hold. */
export const peopleColumns = [
  'name',
  'email',
  'reference',
  'extraPercent',
  'breakMinutes',
  'timeZone',
] as const;
export type PeopleColumn = (typeof peopleColumns)[number];

/** Which column of the file holds what, by its number from 0; null for none. */
export type ColumnMap = Readonly<Record<PeopleColumn, number | null>>;

/** Which name holds where an address is known under another one: the known name, or that of the list. */
export const nameChoices = ['known', 'list'] as const;
export type NameChoice = (typeof nameChoices)[number];

export interface PersonRow {
  /** In the file, from 1. */
  readonly line: number;
  readonly name: string;
  readonly email: string;
  readonly reference: string | null;
  readonly extraPercent: number;
  readonly breakMinutes: number;
  readonly timeZone: string | null;
  /** The name under which the address is known, where the list has another; null where they agree. */
  readonly knownAs: string | null;
  /** `same`: invited already, with nothing to change. */
  readonly state: 'new' | 'changed' | 'same' | 'wrong';
  readonly errors: readonly Message[];
}

export interface PeopleReport {
  /** Why nothing of the file can be read. */
  readonly problem: Message | null;
  /** What the file says in its first line. */
  readonly headings: readonly string[];
  readonly columns: ColumnMap;
  readonly rows: readonly PersonRow[];
  /** How many were invited and how many changed; null in a dry run. */
  readonly done: { readonly invited: number; readonly changed: number } | null;
}
