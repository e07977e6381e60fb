import type { NoticeTopic } from '../../core/letters/letters';
import type { InvitedCandidate } from '../candidates/queries';
import type { NewLetter, Outbox } from './outbox';
import { paperOfVersion } from '../papers/papers';
import type { HasConfig } from '../config';
import type { HasDb } from '../db/open';

interface Notice {
  readonly topic: NoticeTopic;
  readonly says?: string;
}

type Here = HasConfig & HasDb;

function noticeTo(
  { db, config }: Here,
  { round, person, invitation }: InvitedCandidate,
  { topic, says = '' }: Notice,
): NewLetter {
  const { title } = paperOfVersion(db, round.paperVersionId);
  return {
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
  };
}

/** Writes to a candidate that something has come, which they read on their page. */
export function notify(here: Here, outbox: Outbox, invited: InvitedCandidate, notice: Notice): void {
  outbox.put(noticeTo(here, invited, notice));
}

/** As `notify`, of what a candidate is told once; false where they were told before. */
export const notifyOnce = (
  here: Here,
  outbox: Outbox,
  invited: InvitedCandidate,
  topic: NoticeTopic,
): boolean => outbox.putOnce(noticeTo(here, invited, { topic }), topic) !== null;
