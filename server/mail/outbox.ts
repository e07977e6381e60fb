import { and, count, desc, eq, isNull, sql } from 'drizzle-orm';
import {
  secretIn,
  subjectOf,
  writeLetter,
  type LetterFacts,
  type NoticeTopic,
} from '../../core/letters/letters';
import { say } from '../../core/messages/words';
import type { Letter, LetterRow } from '../../core/rounds/api';
import { record } from '../audit/record';
import type { Clock } from '../machine/clock';
import type { Config } from '../config';
import type { Db } from '../db/open';
import { invitations, letters } from '../db/schema';
import type { JobQueue } from '../jobs/jobQueue';
import { subjectsOf } from '../candidates/jobSubjects';
import { calendarFile } from './calendarFile';
import { letterRow } from './letterRow';
import { dropLink, makeLink, revokeLinks } from './links';
import { makeResultCode } from './resultCodes';

export interface NewLetter {
  readonly invitationId: number;
  readonly to: string;
  readonly facts: LetterFacts;
}

type Stored = typeof letters.$inferSelect;

const CALENDAR = { name: 'test-window.ics', type: 'text/calendar' };

/** Something secret, as it was made, and as it stands in the letter. */
interface Secret {
  readonly made: string;
  readonly shown: string;
}

/**
 * Letters lie in the outbox. With a mail server they are sent by a job; without one the outbox itself is the letter box.
 * A stored letter holds no secret link and no code: one is made when it is sent, or when staff ask for one where there is
 * no mail server.
 */
export class Outbox {
  private readonly db: Db;
  private readonly clock: Clock;
  private readonly jobs: JobQueue;
  private readonly config: Config;
  private readonly insert;

  constructor(db: Db, clock: Clock, jobs: JobQueue, config: Config) {
    this.db = db;
    this.clock = clock;
    this.jobs = jobs;
    this.config = config;
    const p = sql.placeholder;
    this.insert = db
      .insert(letters)
      .values({
        invitationId: p('invitationId'),
        to: p('to'),
        facts: p('facts'),
        once: p('once'),
        at: p('at'),
      })
      .onConflictDoNothing()
      .prepare();
    jobs.handle('send-letter', 'letters', (id) => this.send(id), subjectsOf(db).letter);
  }

  put(letter: NewLetter): number {
    return this.add({ ...letter, once: null })!;
  }

  /** As `put`, of something that a candidate is written to of once: null where that was done before. */
  putOnce(letter: NewLetter, once: NoticeTopic): number | null {
    return this.add({ ...letter, once });
  }

  private add(letter: NewLetter & { readonly once: NoticeTopic | null }): number | null {
    const { changes, lastInsertRowid } = this.insert.run({ ...letter, at: this.clock.now() });
    if (changes === 0) return null;
    const id = Number(lastInsertRowid);
    if (this.config.smtpUrl) this.jobs.add('send-letter', id);
    return id;
  }

  /** The newest letters; staff look them up by `lettersList`. */
  list(): LetterRow[] {
    const newest = this.db.select().from(letters).orderBy(desc(letters.id)).limit(500).all();
    return newest.map((letter) => letterRow(letter, this.config));
  }

  /** The round that a letter is about; null where there is no such letter. */
  roundOf(id: number): number | null {
    const own = eq(invitations.id, letters.invitationId);
    const found = this.db
      .select({ round: invitations.roundId })
      .from(letters)
      .innerJoin(invitations, own)
      .where(eq(letters.id, id));
    return found.get()?.round ?? null;
  }

  private find(id: number): Stored | null {
    return this.db.select().from(letters).where(eq(letters.id, id)).get() ?? null;
  }

  /** A letter as it is read here: without the link, which stands in the letter that was sent alone. */
  read(id: number): Letter | null {
    const letter = this.find(id);
    return letter && this.shown(letter, null);
  }

  /**
   * Where there is no mail server: a letter with a new link, on record. Every earlier link of the candidate ends with that of
   * an invitation; the page says so beside the button.
   */
  readWithNewLink(id: number, staffId: number): Letter | null {
    const letter = this.find(id);
    if (!letter || secretIn(letter.facts) === null || this.config.smtpUrl)
      return letter && this.shown(letter, null);
    const { db, clock } = this;
    const { invitationId } = letter;
    const secret = db.transaction(() => {
      if (letter.facts.kind === 'invitation') revokeLinks(db, invitationId);
      record({ db, clock }, { staffId, act: 'made-link', subject: `letter ${id}`, invitationId });
      return this.secretFor(letter);
    });
    return this.shown(letter, secret!.shown);
  }

  private shown(letter: Stored, secret: string | null): Letter {
    const isInvitation = letter.facts.kind === 'invitation';
    return {
      ...letterRow(letter, this.config),
      facts: letter.facts,
      brings: secretIn(letter.facts),
      secret,
      attachments: isInvitation ? [CALENDAR.name] : [],
    };
  }

  /** What hangs on a letter; opened here it names the page where everybody begins, not the secret link. */
  attachment(id: number, name: string): { type: string; content: string } | null {
    const letter = this.find(id);
    if (letter?.facts.kind !== 'invitation' || name !== CALENDAR.name) return null;
    return { type: CALENDAR.type, content: this.calendar(letter, this.config.publicUrl) };
  }

  waiting(): number {
    if (!this.config.smtpUrl) return 0;
    const open = and(isNull(letters.sentAt), isNull(letters.trouble));
    return this.db.select({ n: count() }).from(letters).where(open).get()?.n ?? 0;
  }

  private secretFor({ invitationId, facts }: Stored): Secret | null {
    const now = this.clock.now();
    switch (secretIn(facts)) {
      case null:
        return null;
      case 'code': {
        const code = makeResultCode(this.db, invitationId, now);
        return { made: code, shown: code };
      }
      case 'link': {
        const made = makeLink(this.db, invitationId, now, { asked: facts.kind === 'link' });
        return { made, shown: `${this.config.publicUrl}/i/${made}` };
      }
    }
  }

  private calendar({ invitationId, facts }: Stored, url: string): string {
    if (facts.kind !== 'invitation') throw new Error('only an invitation has a window');
    const { opensAt, closesAt, title } = facts;
    return calendarFile({ invitationId, opensAt, closesAt, title, url });
  }

  private async send(id: number): Promise<void> {
    const letter = this.find(id);
    if (!letter || letter.sentAt || !this.config.smtpUrl) return;
    const change = (values: Partial<Stored>) =>
      this.db.update(letters).set(values).where(eq(letters.id, id)).run();
    const secret = this.secretFor(letter);
    try {
      // Brought where a mail server is set: without one no letter leaves.
      const { createTransport } = await import('nodemailer');
      await createTransport(this.config.smtpUrl).sendMail({
        from: this.config.mailFrom,
        // Sent again after a stop between the sending and its record, it is known as the same.
        messageId: `<letter-${id}-${letter.at}@${new URL(this.config.publicUrl).hostname}>`,
        to: letter.to,
        subject: say(subjectOf(letter.facts)),
        text: writeLetter(letter.facts, secret?.shown ?? null, say),
        attachments:
          secret === null || letter.facts.kind !== 'invitation'
            ? []
            : [
                {
                  filename: CALENDAR.name,
                  contentType: CALENDAR.type,
                  content: this.calendar(letter, secret.shown),
                },
              ],
      });
      change({ sentAt: this.clock.now(), trouble: null });
    } catch (error) {
      if (secret !== null && secretIn(letter.facts) === 'link') dropLink(this.db, secret.made);
      change({ trouble: String(error).slice(0, 300) });
      throw error;
    }
  }
}
