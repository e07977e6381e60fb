import { roundMarked } from '../marking/roundMarked';
import { and, desc, eq, gt, sql } from 'drizzle-orm';
import type { OwnTest, OwnTests, TestState } from '../../core/ownTests/api';
import { inOrderOfNeed } from '../../core/ownTests/order';
import type { Stage } from '../../core/arrival/stage';
import { countedAttempts, totalOfCounted } from '../../core/results/attempts';
import { totalOf } from '../../core/results/totals';
import { allowedMs, MINUTE_MS } from '../../core/timing/deadline';
import { findInvited, isScored, paperOf, sittingsOf, type InvitedCandidate } from '../candidates/queries';
import { arrivalStateOf } from '../candidates/state';
import type { HasConfig } from '../config';
import type { HasDb } from '../db/open';
import { perDatabase } from '../db/perDatabase';
import { invitations, letters, people, rounds } from '../db/schema';
import { conflict, linkNeeded, notFound } from '../http/errors';
import { QUERIES_MS } from '../http/sessions';
import type { HasClock } from '../machine/clock';
import { makeLink } from '../mail/links';
import type { Outbox } from '../mail/outbox';
import { CODE_MS, tryResultCode, type CodeCheck } from '../mail/resultCodes';
import { resultsOfAll } from '../results/attempts';

/** What is needed here of the server. */
type Needs = HasConfig & HasClock & HasDb;

const DAY_MS = 24 * 60 * MINUTE_MS;
/** Links and codes that one person can ask for in a day. */
const A_DAY = { link: 3, code: 5 } as const;

interface Asked {
  /** The invitation of the caller, and the one that they ask for. */
  readonly here: number;
  readonly invitation: number;
}

/** More than anybody is invited to; the newest are shown. */
const MOST_TESTS = 100;

const STATES: Record<Stage['at'], TestState> = {
  'too early': 'later',
  arriving: 'open',
  between: 'open',
  running: 'running',
  'being marked': 'being marked',
  result: 'result',
  over: 'over',
};

/** Asked at every step of an arrival. */
const ofPerson = perDatabase((db) =>
  db
    .select({ id: invitations.id })
    .from(invitations)
    .innerJoin(rounds, eq(rounds.id, invitations.roundId))
    .where(
      and(eq(invitations.personId, sql.placeholder('person')), gt(rounds.closesAt, sql.placeholder('since'))),
    )
    .orderBy(desc(rounds.opensAt), desc(invitations.id))
    .limit(MOST_TESTS)
    .prepare(),
);

/** The invitations of a person whose time for queries is not over, the newest first. */
const invitationsOf = ({ db, clock }: Needs, person: number): number[] =>
  ofPerson(db)
    .all({ person, since: clock.now() - QUERIES_MS })
    .map(({ id }) => id);

function marksOf({ db }: Needs, { invitation, round }: InvitedCandidate) {
  const { marked } = roundMarked(db, round);
  // An attempt that is not scored yet counts for nothing here.
  const { attempts, kept } = resultsOfAll(db, round, marked, [invitation.id]).get(invitation.id)!;
  const scored = attempts.filter(({ sitting }) => isScored(sitting));
  const counted = countedAttempts(scored, round.settings.counts);
  const of = totalOf(marked, counted.at(-1)?.marks ?? []).of;
  return counted.length === 0 ? null : { hundredths: totalOfCounted(counted, marked, kept), of };
}

function testOf(services: Needs, id: number, here: boolean): OwnTest {
  const { invited, stage, released } = arrivalStateOf(services, id);
  const { round, invitation } = invited;
  const paper = paperOf(services.db, invited);
  const closed = sittingsOf(services.db, id).filter((one) => one.closedAt !== null);
  return {
    invitation: id,
    here,
    title: paper.title,
    state: STATES[stage.at],
    opensAt: round.opensAt,
    closesAt: round.closesAt,
    lengthMs: allowedMs(paper.minutes * MINUTE_MS, invitation.extraPercent),
    camera: round.settings.checks.includes('camera'),
    attemptsUsed: closed.length,
    attemptsAllowed: round.settings.attemptsAllowed,
    handedInAt: closed[0]?.closedAt ?? null,
    resultBy: round.settings.resultBy,
    marks: here && released && closed.length > 0 ? marksOf(services, invited) : null,
  };
}

/** All tests that the person of an invitation is invited to. */
export function ownTests(services: Needs, here: number): OwnTests {
  const invited = findInvited(services.db, here);
  if (!invited) throw linkNeeded();
  const { id, name, reference } = invited.person;
  const tests = invitationsOf(services, id).map((one) => testOf(services, one, one === here));
  const { clock, config } = services;
  return {
    now: clock.now(),
    organisation: config.organisation,
    name,
    reference,
    tests: inOrderOfNeed(tests),
  };
}

/** How many tests a person has besides the one of this invitation. */
export const otherTests = (services: Needs, { person, invitation }: InvitedCandidate): number =>
  invitationsOf(services, person.id).filter((id) => id !== invitation.id).length;

/**
 * Writes a letter with an additional link to a test, or with a code for its result; no other link ends. False where as
 * many were asked for in a day as may be. Part of a commit.
 */
function sendAsked(
  { db, clock, config }: Needs,
  outbox: Outbox,
  invited: InvitedCandidate,
  kind: keyof typeof A_DAY = 'link',
): boolean {
  const { invitation, person, round } = invited;
  const sent = db
    .select({ n: sql<number>`count(*)` })
    .from(letters)
    .innerJoin(invitations, eq(invitations.id, letters.invitationId))
    .where(
      and(
        eq(invitations.personId, person.id),
        gt(letters.at, clock.now() - DAY_MS),
        sql`json_extract(${letters.facts}, '$.kind') = ${kind}`,
      ),
    )
    .get()!.n;
  if (sent >= A_DAY[kind]) return false;
  outbox.put({
    invitationId: invitation.id,
    to: person.email,
    facts: {
      ...(kind === 'code' ? { kind, minutes: CODE_MS / MINUTE_MS } : { kind }),
      organisation: config.organisation,
      name: person.name,
      title: paperOf(db, invited).title,
      help: round.settings.help,
      timeZone: invitation.timeZone ?? round.timeZone,
    },
  });
  return true;
}

/** One of the person's own tests: nobody learns from the answer whether another one exists. */
function ownTestOf({ db }: Needs, { here, invitation }: Asked): InvitedCandidate {
  const [own, asked] = [findInvited(db, here), findInvited(db, invitation)];
  if (!own || asked?.person.id !== own.person.id) throw notFound('noTest');
  return asked;
}

/** Sends the link of another of the person's tests to their address. */
export const sendLinkOf = (services: Needs, outbox: Outbox, asked: Asked): { readonly sent: boolean } => ({
  sent: sendAsked(services, outbox, ownTestOf(services, asked)),
});

const isHandedIn = (services: Needs, invitation: number): boolean => {
  const { at } = arrivalStateOf(services, invitation).stage;
  return at === 'result' || at === 'being marked';
};

/** Sends a code to the person's address that shows once where another of their tests stands, its result with it. */
export function sendCodeOf(services: Needs, outbox: Outbox, asked: Asked): { readonly sent: boolean } {
  const invited = ownTestOf(services, asked);
  if (!isHandedIn(services, asked.invitation)) throw conflict('no-result');
  return { sent: sendAsked(services, outbox, invited, 'code') };
}

/** A code as it was typed. What it opens is the page of that test alone, as its own link does. */
export function openByCode(
  services: Needs,
  { code, ...asked }: Asked & { readonly code: string },
): { readonly link: string } | { readonly refused: Exclude<CodeCheck, 'right'> } {
  const { invitation } = ownTestOf(services, asked);
  const { db, clock } = services;
  const check = tryResultCode(db, invitation.id, code, clock.now());
  if (check !== 'right') return { refused: check };
  return { link: makeLink(db, invitation.id, clock.now(), { asked: true }) };
}

/** Sends a link to the person of an address, where there is one; nobody is told whether. */
export function sendLostLink(services: Needs, outbox: Outbox, email: string): void {
  const person = services.db
    .select({ id: people.id })
    .from(people)
    .where(sql`lower(${people.email}) = ${email.toLowerCase()}`)
    .get();
  if (!person) return;
  const all = invitationsOf(services, person.id).map((id) => testOf(services, id, false));
  const [first] = inOrderOfNeed(all);
  const invited = first && findInvited(services.db, first.invitation);
  if (invited) sendAsked(services, outbox, invited);
}
