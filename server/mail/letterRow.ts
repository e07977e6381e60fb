import { subjectOf } from '../../core/letters/letters';
import type { LetterRow } from '../../core/rounds/api';
import type { Config } from '../config';
import type { letters } from '../db/schema';

/** What the outbox tells of a letter; where there is no mail server, none was sent. */
export function letterRow(
  { id, to, facts, at, sentAt, trouble }: typeof letters.$inferSelect,
  { smtpUrl }: Pick<Config, 'smtpUrl'>,
): LetterRow {
  const state = !smtpUrl ? 'not sent' : sentAt ? 'sent' : trouble ? 'failed' : 'waiting';
  return { id, to, subject: subjectOf(facts), at, state };
}
