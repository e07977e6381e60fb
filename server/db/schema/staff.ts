import { integer, sqliteTable, text } from 'drizzle-orm/sqlite-core';
import type { Role } from '../../../core/rounds/api';
import { id, time } from './columns';

/* Staff, their sessions, and the settings of the house. */

export const settings = sqliteTable('settings', {
  key: text('key').primaryKey(),
  value: text('value').notNull(),
});

export const staff = sqliteTable('staff', {
  id: id(),
  email: text('email').notNull().unique(),
  name: text('name').notNull(),
  passwordHash: text('password_hash').notNull(),
  roles: text('roles', { mode: 'json' }).$type<Role[]>().notNull(),
  /** Null while its owner can sign in. */
  disabledAt: time('disabled_at'),
});

export const staffSessions = sqliteTable('staff_sessions', {
  tokenHash: text('token_hash').primaryKey(),
  staffId: integer('staff_id')
    .notNull()
    .references(() => staff.id),
  expiresAt: time('expires_at').notNull(),
  seenAt: time('seen_at').notNull(),
});
