import { createEvent } from 'ics';
import { message } from '../../core/messages/message';
import { say } from '../../core/messages/words';

interface CalendarFacts {
  readonly invitationId: number;
  readonly opensAt: number;
  readonly closesAt: number;
  readonly title: string;
  readonly url: string;
}

/** The window as an iCalendar event (RFC 5545). */
export function calendarFile({ invitationId, opensAt, closesAt, title, url }: CalendarFacts): string {
  const { error, value } = createEvent({
    uid: `invitation-${invitationId}@clear-sitting`,
    start: opensAt,
    end: closesAt,
    startInputType: 'utc',
    startOutputType: 'utc',
    endInputType: 'utc',
    endOutputType: 'utc',
    title: say(message('letter.calendarTitle', { title })),
    description: say(message('letter.calendarText')),
    url,
    busyStatus: 'TENTATIVE',
    productId: 'clear-sitting',
  });
  if (error || !value) throw error ?? new Error('the calendar file is empty');
  return value;
}
