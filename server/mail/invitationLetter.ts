import { TZDate } from '@date-fns/tz';
import { format } from 'date-fns';
import { createEvent } from 'ics';
import { allowedMs, MINUTE_MS } from '../../core/timing/deadline';
import { showLength } from '../../core/timing/pace';
import type { NewLetter } from './outbox';

export interface InvitationFacts {
  readonly invitationId: number;
  readonly organisation: string;
  readonly candidate: { readonly name: string; readonly email: string; readonly reference: string };
  readonly round: {
    readonly title: string;
    readonly paperTitle: string;
    readonly opensAt: number;
    readonly closesAt: number;
    readonly timeZone: string;
    readonly help: string;
    readonly minutes: number;
    readonly camera: boolean;
  };
  readonly extraPercent: number;
  readonly breakMinutes: number;
  /** The zone of the reader where it is known, else the round's. */
  readonly candidateZone: string;
  readonly link: string;
}

/** A time in a zone, with the zone's name: “Tuesday 24 November 2026, 09:00 (Europe/Oslo)”. */
export const showTime = (at: number, timeZone: string): string =>
  `${format(new TZDate(at, timeZone), 'EEEE d MMMM yyyy, HH:mm')} (${timeZone})`;

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
    title: `${title}: the window of your test`,
    description: 'Open the personal link in your letter at any time in this window.',
    url,
    busyStatus: 'TENTATIVE',
    productId: 'clear-sitting',
  });
  if (error || !value) throw error ?? new Error('the calendar file is empty');
  return value;
}

/** The letter that invites a candidate. Times are the round's here; the page behind the link shows the reader's own. */
export function invitationLetter(facts: InvitationFacts): NewLetter {
  const { candidate, round, extraPercent, breakMinutes, candidateZone, organisation, link } = facts;
  const time = showLength(allowedMs(round.minutes * MINUTE_MS, extraPercent));
  const extra = extraPercent > 0 ? `, your extra time of ${extraPercent} % included` : '';
  const breaks =
    breakMinutes > 0 ? `\n        Rest breaks: ${breakMinutes} min in all, whenever you want.` : '';
  const here =
    candidateZone === round.timeZone
      ? ''
      : `\n        In ${round.timeZone}: ${showTime(round.opensAt, round.timeZone)} to ${showTime(round.closesAt, round.timeZone)}`;
  const text = `Dear ${candidate.name},

the ${organisation} invites you to a remote test: ${round.paperTitle}.

When:   from ${showTime(round.opensAt, candidateZone)}
        to   ${showTime(round.closesAt, candidateZone)}${here}
        You choose when to begin within this window; the page behind your link shows it in your own time zone.
Time:   ${time}${extra}. The clock starts only when you press Start.${breaks}
Your reference: ${candidate.reference}

Your personal link – please do not pass it on:
${link}

What to prepare: a laptop or a phone with a current browser${round.camera ? ' and a camera' : ''}, a quiet place, a charged battery. The link leads through readiness checks first; they cost no time. If the window or the connection closes, open the same link again: your answers are kept.

${round.help}
`;
  const { opensAt, closesAt, paperTitle: title } = round;
  const window = { invitationId: facts.invitationId, opensAt, closesAt, title, url: link };
  return {
    invitationId: facts.invitationId,
    to: candidate.email,
    subject: `Your test: ${round.paperTitle}`,
    text,
    attachments: [{ name: 'test-window.ics', type: 'text/calendar', content: calendarFile(window) }],
  };
}
