import { and, desc, eq, isNull, sql } from 'drizzle-orm';
import { MOST_PHONE_PAGES, PHONE_MS, type Page, type PagePartReply } from '../../core/files/pages';
import type { PhoneOpened, PhoneView } from '../../core/files/phone';
import { canonicalJson } from '../../core/journal/canonicalJson';
import { candidateKindOf } from '../../core/kinds/candidateKindOf';
import type { JoinedPhone, LivePages } from '../../core/live/api';
import type { Question, ShownPart } from '../../core/papers/candidatePaper';
import { leftMs, sectionEndAt, timeViewOf } from '../../core/timing/sittingTime';
import { findInvited, paperOf } from '../candidates/queries';
import { perDatabase } from '../db/perDatabase';
import { phones } from '../db/schema';
import { formById } from '../forms/forms';
import { ApiError, conflict, notFound } from '../http/errors';
import { newCode, newSecret, plainCode, sha256 } from '../secrets';
import type { PartOfPage, SittingPages } from '../sittings/sittingPages';
import { sectionOfTarget } from '../sittings/placing';
import { isClosedNow } from '../sittings/forwardOnly';
import { findSitting, sittingQueries, type Sitting } from '../sittings/queries';
import { pageOf, pagesOf } from '../uploads/uploads';
import type { HasCommits } from '../db/groupCommit';
import type { HasDb } from '../db/open';
import type { HasHub } from '../events/hub';
import type { HasClock } from '../machine/clock';
import type { HasTime } from '../sittings/timeKeeper';

/** What is needed here of the server. */
interface Needs extends HasClock, HasDb, HasCommits, HasTime, HasHub {}

type Row = typeof phones.$inferSelect;

/** The server's own entries are in no hold. */
const NO_HOLD = 0;
/** Nobody joins a phone so often. */
const MOST_PHONES = 100;

export const phoneEnded = () => new ApiError(410, 'phone-ended');
const notNow = () => conflict('phone-not-now');

const queriesOf = perDatabase((db) => {
  const p = sql.placeholder;
  return {
    newest: db
      .select()
      .from(phones)
      .where(eq(phones.sittingId, p('sitting')))
      .orderBy(desc(phones.id))
      .limit(1)
      .prepare(),
    all: db
      .select({ id: phones.id })
      .from(phones)
      .where(eq(phones.sittingId, p('sitting')))
      .prepare(),
    byCode: db
      .select()
      .from(phones)
      .where(eq(phones.codeHash, p('hash')))
      .prepare(),
    bySecret: db
      .select()
      .from(phones)
      .where(eq(phones.secretHash, p('hash')))
      .prepare(),
  };
});

const joinedPages = ({ db }: HasDb, sitting: number, target: string): Page[] => {
  const row = sittingQueries(db).currentAt(sitting, 'page', target);
  return row ? (JSON.parse(row.value) as Page[]) : [];
};

function openPhone({ db, clock }: HasClock & HasDb, sitting: number): JoinedPhone | null {
  const row = queriesOf(db).newest.get({ sitting });
  if (!row || row.endedAt !== null || row.until <= clock.now()) return null;
  return { target: row.target, until: row.until, joined: row.joinedAt !== null };
}

/** What a desk is told of the pages of its sitting. */
export function livePages(services: HasClock & HasDb, sitting: number, allowed: boolean): LivePages {
  const { db } = services;
  const joined = sittingQueries(db).currentAbout(sitting, 'page');
  return {
    states: Object.fromEntries(pagesOf(db, sitting).map((row) => [row.hash, row.state])),
    joined: Object.fromEntries(joined.map((row) => [row.target, JSON.parse(row.value) as Page[]])),
    phones: allowed,
    phone: allowed ? openPhone(services, sitting) : null,
  };
}

/**
 * Phones that are joined to a desk: each is bound to one part for some minutes by a secret of its own, and can do nothing
 * but send pages for it.
 */
export class Phones {
  private readonly services: Needs;
  private readonly pages: SittingPages;

  constructor(services: Needs, pages: SittingPages) {
    [this.services, this.pages] = [services, pages];
  }

  /** Asked by the desk: a secret for the QR code. A phone that was joined before is joined no longer. */
  async open(invitation: number, target: string): Promise<PhoneOpened> {
    const { db, clock, commits, hub } = this.services;
    const found = sittingQueries(db).newestOf(invitation);
    if (!found || found.sitting.closedAt !== null) throw conflict('no-sitting');
    const { sitting } = found;
    const { round } = findInvited(db, invitation)!;
    const { part } = this.placeOf(sitting, target);
    const kind = candidateKindOf(part.kind);
    if (!round.settings.joinedPhones || !kind.takePages) throw conflict('no-phones');
    if (!this.isOpen(sitting, target)) throw notNow();
    if (queriesOf(db).all.all({ sitting: sitting.id }).length >= MOST_PHONES)
      throw conflict('too-many-phones');
    const [secret, code, until] = [newSecret(), newCode(), clock.now() + PHONE_MS];
    await commits.run(() => {
      this.endAll(sitting.id);
      db.insert(phones)
        .values({
          sittingId: sitting.id,
          target,
          secretHash: sha256(secret),
          codeHash: sha256(plainCode(code)),
          until,
        })
        .run();
    });
    hub.tellOf(invitation, round.id);
    return { secret, code, until };
  }

  /** A phone on which the code was typed: it gets a secret of its own, and neither the code nor the QR code opens another. */
  async join(code: string): Promise<{ readonly secret: string }> {
    const { db, clock, commits } = this.services;
    const secret = newSecret();
    const joined = await commits.run(() => {
      const row = queriesOf(db).byCode.get({ hash: sha256(plainCode(code)) });
      if (!row || row.joinedAt !== null || row.endedAt !== null || row.until <= clock.now()) return false;
      const change = { secretHash: sha256(secret), codeHash: null };
      db.update(phones).set(change).where(eq(phones.id, row.id)).run();
      return true;
    });
    if (!joined) throw notFound('noPhoneCode');
    return { secret };
  }

  async end(invitation: number): Promise<void> {
    const found = sittingQueries(this.services.db).newestOf(invitation);
    if (!found) return;
    await this.services.commits.run(() => this.endAll(found.sitting.id));
    this.services.hub.tellOf(invitation, found.roundId);
  }

  private endAll(sitting: number): void {
    const { db, clock } = this.services;
    const open = and(eq(phones.sittingId, sitting), isNull(phones.endedAt));
    db.update(phones).set({ endedAt: clock.now() }).where(open).run();
  }

  /** Asked by the phone: what it is for, and what has come. */
  async view(secret: string): Promise<PhoneView> {
    const { db, clock, commits } = this.services;
    const row = this.stillJoined(secret);
    const sitting = findSitting(db, row.sittingId)!;
    if (row.joinedAt === null) {
      await commits.run(
        () => void db.update(phones).set({ joinedAt: clock.now() }).where(eq(phones.id, row.id)).run(),
      );
      this.tell(sitting);
    }
    const { question, part } = this.placeOf(sitting, row.target);
    return {
      now: clock.now(),
      until: row.until,
      question: question.number,
      title: question.title,
      part: question.parts.length > 1 ? part.key : null,
      pages: joinedPages(this.services, sitting.id, row.target).map((page) => ({
        ...page,
        state: pageOf(db, sitting.id, page.hash)?.state ?? null,
      })),
    };
  }

  /** Writes a page into the answer before its bytes come: as an entry of the server's own, for the phone has no hold. */
  async announce(secret: string, page: Page): Promise<void> {
    const { db, clock, commits } = this.services;
    const { sittingId, target } = this.stillJoined(secret);
    const sitting = findSitting(db, sittingId)!;
    await commits.run(() => {
      const known = joinedPages(this.services, sittingId, target);
      if (known.some((one) => one.hash === page.hash)) return;
      if (!this.isOpen(sitting, target)) throw notNow();
      if (known.length >= MOST_PHONE_PAGES) throw new ApiError(429, 'too-many-pages');
      this.write(sittingId, target, [...known, page], clock.now());
    });
    this.tell(sitting);
  }

  private write(sittingId: number, target: string, pages: readonly Page[], at: number): void {
    const find = sittingQueries(this.services.db);
    const number = find.lastOf({ sitting: sittingId, hold: NO_HOLD }) + 1;
    const place = {
      sittingId,
      hold: NO_HOLD,
      number,
      about: 'page',
      target,
      value: canonicalJson(pages),
    } as const;
    find.addEntry({
      ...place,
      variant: 0,
      patch: null,
      restored: null,
      claimedAt: at,
      arrivedAt: at,
      aside: null,
    });
    find.setCurrent({ ...place, depth: 0 });
  }

  /** Bytes of a page that was announced: also after the phone has ended, for what was announced was heard in time. */
  take(secret: string, part: PartOfPage): Promise<PagePartReply> {
    const { db } = this.services;
    const { sittingId, target } = this.known(secret);
    const known = joinedPages(this.services, sittingId, target);
    if (!known.some((page) => page.hash === part.hash)) throw notFound('noPage');
    return this.pages.take(findSitting(db, sittingId)!, part);
  }

  /** Whether a secret was ever given to a phone: nothing of a request without one is read. */
  isKnown(secret: string): boolean {
    return secret !== '' && queriesOf(this.services.db).bySecret.get({ hash: sha256(secret) }) !== undefined;
  }

  private known(secret: string): Row {
    const row = queriesOf(this.services.db).bySecret.get({ hash: sha256(secret) });
    if (!row) throw phoneEnded();
    return row;
  }

  private stillJoined(secret: string): Row {
    const row = this.known(secret);
    const { db, clock } = this.services;
    const closed = findSitting(db, row.sittingId)!.closedAt !== null;
    if (closed || row.endedAt !== null || row.until <= clock.now()) throw phoneEnded();
    return row;
  }

  /** Whether this part can be written to: nobody adds to an answer in a break, after its end, or once it was passed. */
  private isOpen(sitting: Sitting, target: string): boolean {
    const { id, invitationId } = sitting;
    const { db, clock, time } = this.services;
    const [state, now] = [time.of(id), clock.now()];
    if (state.closed !== null || leftMs(state, now) === 0 || timeViewOf(state, now).stopped !== null)
      return false;
    if (isClosedNow(db, sitting, target)) return false;
    const section = sectionOfTarget(paperOf(db, findInvited(db, invitationId)!), target);
    return section === null || (section in state.entered && sectionEndAt(state, section, now) === null);
  }

  private placeOf(
    { formId }: Sitting,
    target: string,
  ): { readonly question: Question; readonly part: ShownPart } {
    const { questions } = formById(this.services.db, formId).paper;
    const question = questions.find((one) => one.parts.some((part) => part.target === target));
    const part = question?.parts.find((one) => one.target === target);
    if (!question || !part) throw notFound('noQuestion');
    return { question, part };
  }

  private tell({ invitationId }: Sitting): void {
    const { db, hub } = this.services;
    hub.tellOf(invitationId, findInvited(db, invitationId)!.round.id);
  }
}
