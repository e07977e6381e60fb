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
  readonly link: string;
}

/** A time in a zone, with the zone's name: “Tuesday 24 November 2026, 09:00 (Europe/Oslo)”. */
export const showTime = (at: number, timeZone: string): string =>
  `${format(new TZDate(at, timeZone), 'EEEE d MMMM yyyy, HH:mm')} (${timeZone})`;

function calendarFile({ round, link, invitationId }: InvitationFacts): string {
  const { error, value } = createEvent({
    uid: `invitation-${invitationId}@clear-sitting`,
    start: round.opensAt,
    end: round.closesAt,
    startInputType: 'utc',
    startOutputType: 'utc',
    endInputType: 'utc',
    endOutputType: 'utc',
    title: `${round.paperTitle}: the window of your test`,
    description: `Open ${link} at any time in this window.`,
    url: link,
    busyStatus: 'TENTATIVE',
    productId: 'clear-sitting',
  });
  if (error || !value) throw error ?? new Error('the calendar file is empty');
  return value;
}

/** The letter that invites a candidate. Times are the round's here; the page behind the link shows the reader's own. */
export function invitationLetter(facts: InvitationFacts): NewLetter {
  const { candidate, round, extraPercent, organisation, link } = facts;
  const time = showLength(allowedMs(round.minutes * MINUTE_MS, extraPercent));
  const extra = extraPercent > 0 ? `, your extra time of ${extraPercent} % included` : '';
  const text = `Dear ${candidate.name},

the ${organisation} invites you to a remote test: ${round.paperTitle}.

When:   from ${showTime(round.opensAt, round.timeZone)}
        to   ${showTime(round.closesAt, round.timeZone)}
        You choose when to begin within this window; the page behind your link shows it in your own time zone.
Time:   ${time}${extra}. The clock starts only when you press Start.
Your reference: ${candidate.reference}

Your personal link – please do not pass it on:
${link}

What to prepare: a laptop or a telephone with a current browser${round.camera ? ' and a camera' : ''}, a quiet place, a charged battery. The link leads through readiness checks first; they cost no time. If the window or the connection closes, open the same link again: your answers are kept.

${round.help}
`;
  return {
    invitationId: facts.invitationId,
    to: candidate.email,
    subject: `Your test: ${round.paperTitle}`,
    text,
    attachments: [{ name: 'test-window.ics', type: 'text/calendar', content: calendarFile(facts) }],
  };
}
