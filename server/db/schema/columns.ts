import { integer } from 'drizzle-orm/sqlite-core';

export const id = () => integer('id').primaryKey({ autoIncrement: true });
/** Milliseconds since 1970, by the server's clock. */
export const time = (name: string) => integer(name);
