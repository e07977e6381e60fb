import { eq, like } from 'drizzle-orm';
import Joi from 'joi';
import { objectOf, oneOf } from '../../core/validation/shapes';
import { checkNames } from '../../core/arrival/checks';
import { startRules } from '../../core/arrival/stage';
import { withdrawnRules } from '../../core/papers/ruling';
import { attemptRules, releaseRules, roles, sheetsShown, type NewRound } from '../../core/rounds/api';
import { record } from '../audit/record';
import { paperVersions, rounds, roundStaff, staff } from '../db/schema';
import { badRequest, conflict, notFound, unreadable } from '../http/errors';
import { paperOfVersion } from '../papers/papers';
import { refuseWithoutWall } from '../papers/secondWall';
import type { HasDb } from '../db/open';
import type { HasClock } from '../machine/clock';
import type { HasLog } from '../machine/log';
import type { HasMedia } from '../media/sealedMedia';
import type { HasSandbox } from '../sandbox/sandbox';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasLog, HasMedia, HasSandbox {}

const moment = Joi.number().integer().min(0).max(1e14).required();
const zone = Joi.string().custom((name: string, helpers) =>
  name === 'UTC' || Intl.supportedValuesOf('timeZone').includes(name) ? name : helpers.error('any.invalid'),
);
const locale = Joi.string()
  .max(35)
  .custom((name: string, helpers) => {
    try {
      return Intl.getCanonicalLocales(name)[0]!;
    } catch {
      return helpers.error('any.invalid');
    }
  });

export const newRound = objectOf<NewRound>({
  title: Joi.string().trim().min(2).max(200),
  paper: Joi.number().integer().min(1),
  opensAt: moment,
  closesAt: moment,
  timeZone: zone,
  settings: Joi.object({
    locale: locale.required(),
    attemptsAllowed: Joi.number().integer().min(1).max(10).required(),
    counts: oneOf(attemptRules).required(),
    pauseMinutes: Joi.number().integer().min(0).max(100_000).required(),
    forPractice: Joi.boolean().required(),
    startRule: oneOf(startRules).required(),
    doorsMinutes: Joi.number().integer().min(0).max(240).required(),
    openRehearsal: Joi.boolean().required(),
    correctionsFirst: Joi.boolean().required(),
    identityPicture: Joi.boolean().required(),
    joinedPhones: Joi.boolean().required(),
    checks: Joi.array().items(oneOf(checkNames)).unique().required(),
    keptDays: Joi.number().integer().min(1).max(730).required(),
    help: Joi.string().trim().min(1).max(500).required(),
    resultBy: moment,
    questionnaire: Joi.boolean().required(),
    release: oneOf(releaseRules).required(),
    releaseAt: Joi.number().integer().min(0).max(1e14).allow(null).required(),
    sheet: oneOf(sheetsShown).required(),
    checkDays: Joi.number().integer().min(0).max(365).required(),
    withdrawn: oneOf(withdrawnRules).required(),
    marksMayFall: Joi.boolean().required(),
    bandsAfterwards: Joi.boolean().required(),
  }),
  staff: Joi.array()
    .items(
      Joi.object({
        id: Joi.number().integer().min(1).required(),
        roles: Joi.array().items(oneOf(roles)).unique().min(1).required(),
      }),
    )
    .unique('id')
    .max(500),
});

/** A name for addresses, of the title and where needed a number. */
function keyOf({ db }: HasDb, title: string): string {
  const stem =
    title
      .normalize('NFKD')
      .toLowerCase()
      .replace(/[\u0300-\u036f]/g, '')
      .replace(/[^a-z0-9]+/g, '-')
      .replace(/^-|-$/g, '')
      .slice(0, 50) || 'round';
  const taken = new Set(
    db
      .select({ key: rounds.key })
      .from(rounds)
      .where(like(rounds.key, `${stem}%`))
      .all()
      .map((row) => row.key),
  );
  for (let n = 1; ; n++) {
    const key = n === 1 ? stem.padEnd(3, '-round') : `${stem}-${n}`;
    if (!taken.has(key)) return key;
  }
}

/** Schedules a paper; whoever does it coordinates the round, whoever else is named has the roles given. */
export function makeRound(services: Needs, staffId: number, wanted: NewRound): number {
  const { db, media, log } = services;
  const { title, paper, opensAt, closesAt, timeZone, settings } = wanted;
  if (closesAt <= opensAt) throw unreadable('windowEmpty');
  if ((settings.release === 'on a date') !== (settings.releaseAt !== null)) throw unreadable('noReleaseDate');
  const found = db.select({ id: paperVersions.id }).from(paperVersions).where(eq(paperVersions.id, paper));
  if (!found.get()) throw notFound('noPaper');
  const full = () => paperOfVersion(db, paper);
  refuseWithoutWall(services, full);
  // Its questions would all be asked, in the order of the file.
  if (full().sections.some((section) => section.adaptive)) throw conflict('adaptive-round');
  const known = new Map(
    db
      .select()
      .from(staff)
      .all()
      .map((member) => [member.id, member]),
  );
  for (const { id, roles: given } of wanted.staff)
    if (!given.every((role) => known.get(id)?.roles.includes(role))) throw badRequest('roleNotHeld');
  const roundId = db.transaction(() => {
    const values = { key: keyOf(services, title), title, paperVersionId: paper, opensAt, closesAt, timeZone };
    const roundId = Number(
      db
        .insert(rounds)
        .values({ ...values, settings })
        .run().lastInsertRowid,
    );
    const all = [...wanted.staff.flatMap(({ id, roles: given }) => given.map((role) => ({ id, role })))];
    for (const { id, role } of [{ id: staffId, role: 'coordinator' as const }, ...all])
      db.insert(roundStaff).values({ roundId, staffId: id, role }).onConflictDoNothing().run();
    record(services, { staffId, act: 'made-round', subject: `round ${roundId}` });
    return roundId;
  });
  // Long before the first candidate asks for them; whoever asks earlier waits for the same work.
  media.seal(roundId).catch((error: unknown) => log.error({ err: error, roundId }, 'media are not sealed'));
  return roundId;
}
