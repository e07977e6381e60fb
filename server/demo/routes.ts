import { and, eq } from 'drizzle-orm';
import { readFileSync } from 'node:fs';
import type { DemoCandidate, DemoMember, DemoPage } from '../../core/demo/api';
import { roles } from '../../core/rounds/api';
import { listOf, objectOf, oneOf, parsed, textOf } from '../../core/validation/shapes';
import type { HasConfig } from '../config';
import type { HasDb } from '../db/open';
import { invitations, people, rounds, staff } from '../db/schema';
import { forAnyone, type Endpoint } from '../http/endpoint';
import { notFound } from '../http/errors';
import type { HasSessions } from '../http/sessions';
import type { HasClock } from '../machine/clock';
import { makeLink } from '../mail/links';

/** What is needed here of the server. */
interface Needs extends HasConfig, HasClock, HasDb, HasSessions {}

const text = textOf(300, 1);
const candidate = objectOf<DemoCandidate>({ name: text, email: text, round: text, good: text });
const member = objectOf<DemoMember>({ name: text, email: text, roles: listOf(oneOf(roles)) });
const pageSchema = objectOf<DemoPage>({
  candidates: listOf(candidate),
  staff: listOf(member),
  suggestions: listOf(text),
});

const candidateBody = objectOf<{ email: string; round: string }>({ email: text, round: text });
const memberBody = objectOf<{ email: string }>({ email: text });

/**
 * The front page of the demo: one press for each of its people. Only where the server runs as the demo
 * (`CLEAR_SITTING_DEMO`), and only for the people whom the demo names.
 */
export function demoEndpoints({ config, db, clock, sessions }: Needs): Endpoint[] {
  const file = config.demoFile;
  if (file === null) return [forAnyone({ method: 'get', path: '/demo' }, (): DemoPage | null => null)];
  const page = parsed(pageSchema, JSON.parse(readFileSync(file, 'utf8')));
  return [
    forAnyone({ method: 'get', path: '/demo' }, (): DemoPage | null => page),
    forAnyone({ method: 'post', path: '/demo/candidate', body: candidateBody }, ({ body }) => {
      const named = page.candidates.some((one) => one.email === body.email && one.round === body.round);
      const invitation = db
        .select({ id: invitations.id })
        .from(invitations)
        .innerJoin(people, eq(people.id, invitations.personId))
        .innerJoin(rounds, eq(rounds.id, invitations.roundId))
        .where(and(eq(people.email, body.email), eq(rounds.key, body.round)))
        .get();
      if (!named || !invitation) throw notFound('noCandidate');
      return { link: makeLink(db, invitation.id, clock.now(), { asked: true }) };
    }),
    forAnyone({ method: 'post', path: '/demo/staff', body: memberBody }, ({ body, request, response }) => {
      const known = db.select({ id: staff.id }).from(staff).where(eq(staff.email, body.email)).get();
      if (!known || !page.staff.some(({ email }) => email === body.email)) throw notFound('noCandidate');
      sessions.openForStaff(request, response, known.id);
      return { signedIn: true };
    }),
  ];
}
