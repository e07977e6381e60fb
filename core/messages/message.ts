/**
 * What is said, as a code with values: `area.key`, as `choice.chooseMore` with `{ count: 2 }`. Its words are in the
 * catalogue of the area, one a language; nothing that is stored or sent holds a sentence of ours. Values may hold what
 * authors and candidates have written.
 */
export interface Message {
  readonly code: string;
  readonly values?: Readonly<Record<string, string | number>>;
}

export const message = (code: string, values?: Message['values']): Message =>
  values ? { code, values } : { code };

/** Puts a message into words. */
export type Say = (message: Message) => string;
