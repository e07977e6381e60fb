import { desc, eq, isNull, and, count } from 'drizzle-orm';
import { createTransport } from 'nodemailer';
import type { Letter, LetterRow } from '../../core/rounds/api';
import type { Clock } from '../clock';
import type { Config } from '../config';
import type { Db } from '../db/open';
import { letters } from '../db/schema';
import type { JobQueue } from '../jobs/jobQueue';

export interface NewLetter {
  readonly invitationId: number | null;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  readonly attachments: { name: string; type: string; content: string }[];
}

const LINK = /https?:\/\/\S+\/i\/[\w-]+/;
/** Where an iCalendar file breaks a long line (RFC 5545, 3.1); a link may be broken by it. */
const FOLD = /\r?\n[ \t]/g;

/** What is kept of a letter that was sent: everything but the secret link, in its text and in what hangs on it. */
const withoutLink = ({ text, attachments }: Pick<NewLetter, 'text' | 'attachments'>) => {
  const struck = (content: string) => content.replace(LINK, '(the personal link, sent)');
  return {
    text: struck(text),
    attachments: attachments.map((a) => ({ ...a, content: struck(a.content.replace(FOLD, '')) })),
  };
};

/**
 * Letters lie in the outbox. With a mail server they are sent by a job, and the secret link is struck from the copy
 * kept here; without one the outbox itself is the letter box.
 */
export class Outbox {
  private readonly db: Db;
  private readonly clock: Clock;
  private readonly jobs: JobQueue;
  private readonly config: Config;

  constructor(db: Db, clock: Clock, jobs: JobQueue, config: Config) {
    this.db = db;
    this.clock = clock;
    this.jobs = jobs;
    this.config = config;
    jobs.handle('send-letter', (id) => this.send(id));
  }

  put(letter: NewLetter): number {
    const { lastInsertRowid } = this.db
      .insert(letters)
      .values({ ...letter, at: this.clock.now() })
      .run();
    const id = Number(lastInsertRowid);
    if (this.config.smtpUrl) this.jobs.add('send-letter', id);
    return id;
  }

  list(): LetterRow[] {
    return this.db
      .select()
      .from(letters)
      .orderBy(desc(letters.id))
      .limit(500)
      .all()
      .map((l) => this.row(l));
  }

  read(id: number): Letter | null {
    const letter = this.db.select().from(letters).where(eq(letters.id, id)).get();
    if (!letter) return null;
    const names = letter.attachments.map((a) => a.name);
    return {
      ...this.row(letter),
      text: letter.text,
      link: LINK.exec(letter.text)?.[0] ?? null,
      attachments: names,
    };
  }

  attachment(id: number, name: string): { type: string; content: string } | null {
    const letter = this.db.select().from(letters).where(eq(letters.id, id)).get();
    return letter?.attachments.find((a) => a.name === name) ?? null;
  }

  waiting(): number {
    if (!this.config.smtpUrl) return 0;
    const open = and(isNull(letters.sentAt), isNull(letters.trouble));
    return this.db.select({ n: count() }).from(letters).where(open).get()?.n ?? 0;
  }

  private row({ id, to, subject, at, sentAt, trouble }: typeof letters.$inferSelect): LetterRow {
    const state = !this.config.smtpUrl ? 'kept here' : sentAt ? 'sent' : trouble ? 'failed' : 'waiting';
    return { id, to, subject, at, state };
  }

  private async send(id: number): Promise<void> {
    const letter = this.db.select().from(letters).where(eq(letters.id, id)).get();
    if (!letter || letter.sentAt || !this.config.smtpUrl) return;
    const change = (values: Partial<typeof letter>) =>
      this.db.update(letters).set(values).where(eq(letters.id, id)).run();
    try {
      await createTransport(this.config.smtpUrl).sendMail({
        from: this.config.mailFrom,
        to: letter.to,
        subject: letter.subject,
        text: letter.text,
        attachments: letter.attachments.map((a) => ({
          filename: a.name,
          contentType: a.type,
          content: a.content,
        })),
      });
      change({
        sentAt: this.clock.now(),
        trouble: null,
        ...withoutLink(letter),
      });
    } catch (error) {
      change({ trouble: String(error).slice(0, 300) });
      throw error;
    }
  }
}
