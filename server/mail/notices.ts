import type { NoticeTopic } from '../../core/letters/letters';
import type { InvitedCandidate } from '../candidates/queries';
import type { Outbox } from './outbox';
import { paperOfVersion } from '../papers/papers';
import type { Services } from '../services';

/** Writes to a candidate that something has come, which they read on their page. */
export function notify(
  { db, config }: Pick<Services, 'db' | 'config'>,
  outbox: Outbox,
  { round, person, invitation }: InvitedCandidate,
  { topic, says = '' }: { readonly topic: NoticeTopic; readonly says?: string },
): void {
  const { title } = paperOfVersion(db, round.paperVersionId);
  outbox.put({
    invitationId: invitation.id,
    to: person.email,
    facts: {
      kind: 'notice',
      topic,
      says,
      organisation: config.organisation,
      name: person.name,
      title,
      help: round.settings.help,
      timeZone: invitation.timeZone ?? round.timeZone,
    },
  });
}
