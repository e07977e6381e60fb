import { makeLink } from '../mail/links';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { ArrivalView } from '../../core/arrival/api';
import type { FullPaper } from '../../core/papers/paper';
import { noArrangements, type Arrangements, type Role, type RoundSettings } from '../../core/rounds/api';
import { SMALL_PICTURE, SMALL_PICTURE_HASH } from '../../core/testing/smallPicture';
import { MINUTE_MS } from '../../core/timing/deadline';
import { createServer } from 'node:http';
import { allEndpoints, buildListener } from '../app';
import type { MovableClock } from '../machine/clock';
import { readConfig } from '../config';
import { rounds, roundStaff, staff } from '../db/schema';
import { keepFiles } from '../papers/keepFiles';
import { publishPaper } from '../papers/papers';
import { invite } from '../rounds/operations';
import { wire, type Wired } from '../wire';
import { ApiClient } from './ApiClient';
import { TestDevice } from './TestDevice';

/** The picture that the samples of the kinds name. */
const PICTURE = {
  facts: { is: 'picture' as const, hash: SMALL_PICTURE_HASH },
  type: 'image/jpeg',
  bytes: Buffer.from(SMALL_PICTURE, 'base64'),
};

const SETTINGS: RoundSettings = {
  locale: 'en-GB',
  attemptsAllowed: 1,
  pauseMinutes: 0,
  forPractice: false,
  counts: 'latest',
  startRule: 'opening time',
  doorsMinutes: 30,
  openRehearsal: true,
  correctionsFirst: false,
  identityPicture: false,
  joinedPhones: true,
  checks: [],
  keptDays: 60,
  help: 'Ask the archive.',
  resultBy: 0,
  questionnaire: false,
  release: 'after sign-off',
  releaseAt: null,
  sheet: 'key',
  checkDays: 14,
  withdrawn: 'scaled',
  marksMayFall: false,
  bandsAfterwards: false,
};

/** The whole server in this process, on a folder of its own, with a clock that the test moves. */
export class Served {
  readonly wired: Wired;
  readonly url: string;
  private readonly stop: () => void;
  private people = 0;
  private nextName: string | null = null;
  private rounds = 0;

  constructor(wired: Wired, url: string, stop: () => void) {
    this.wired = wired;
    this.url = url;
    this.stop = stop;
  }

  get clock(): MovableClock {
    return this.wired.services.clock as MovableClock;
  }

  addRound(paper: FullPaper, settings: Partial<RoundSettings> = {}): number {
    const { db } = this.wired.services;
    keepFiles(this.wired.services, [PICTURE]);
    const paperVersionId = publishPaper(db, paper);
    const now = this.clock.now();
    const values = {
      key: `round-${++this.rounds}`,
      title: `Round of ${paper.title}`,
      paperVersionId,
      timeZone: 'Europe/Oslo',
      opensAt: now - MINUTE_MS,
      closesAt: now + 600 * MINUTE_MS,
      settings: { ...SETTINGS, ...settings },
    };
    const round = Number(db.insert(rounds).values(values).run().lastInsertRowid);
    for (const member of db.select().from(staff).all()) this.assign(member, round);
    return round;
  }

  /** Everybody has in every round the roles that they have at all. */
  assign(member: Pick<typeof staff.$inferSelect, 'id' | 'roles'>, roundId: number): void {
    const { db } = this.wired.services;
    for (const role of member.roles)
      db.insert(roundStaff).values({ roundId, staffId: member.id, role }).onConflictDoNothing().run();
  }

  /** The name of whoever is invited next. */
  nameNext(name: string): void {
    this.nextName = name;
  }

  /** Invites somebody new; gives the secret of their link. */
  invite(round: number, extraPercent = 0, arrangements: Partial<Arrangements> = {}): string {
    const { services, outbox } = this.wired;
    const name = this.nextName ?? `Candidate ${this.people + 1}`;
    this.nextName = null;
    this.people += 1;
    const email = `candidate.${this.people}@example.org`;
    const { invitation } = invite(services, outbox, round, {
      name,
      email,
      extraPercent,
      reference: null,
      timeZone: null,
      arrangements: { ...noArrangements, ...arrangements },
    });
    return makeLink(services.db, invitation, services.clock.now());
  }

  /** Somebody who is signed in already: hashing passwords took a tenth of the server's tests. */
  staff(role: Role): ApiClient {
    const { db, sessions } = this.wired.services;
    const email = `${role}.${++this.people}@example.org`;
    const member = db
      .insert(staff)
      .values({ email, name: role, roles: [role], passwordHash: 'no password' })
      .returning()
      .get();
    for (const { id } of db.select().from(rounds).all()) this.assign(member, id);
    return new ApiClient(this.url, `clear_sitting_staff=${sessions.addForStaff(member.id)}`);
  }

  /** A candidate whose sitting runs: link opened, steps taken, clock started. */
  async sitting(link: string): Promise<TestDevice> {
    const client = await this.atCover(link);
    return TestDevice.start(client, this.clock);
  }

  /** A candidate at the cover page: everything is done but the start. */
  async atCover(link: string): Promise<ApiClient> {
    const client = new ApiClient(this.url);
    const { body } = await client.post<ArrivalView>('/arrival/open', { link });
    if (body.stage.at === 'between') await client.post('/arrival/attempt', { attempt: body.stage.next });
    await client.post('/arrival/details', { correction: null });
    await client.post('/arrival/rules', { version: '1', accepted: ['honest'] });
    return client;
  }

  async close(): Promise<void> {
    this.stop();
    await this.wired.close();
    rmSync(this.wired.services.config.dataFolder, { recursive: true, force: true });
  }
}

/** Tests move the clock by hours; whoever is signed in stays so. */
const LONG = { CLEAR_SITTING_IDLE_MINUTES: '720' };

export async function serve(settings: Record<string, string> = {}): Promise<Served> {
  const folder = mkdtempSync(path.join(tmpdir(), 'clear-sitting-test-'));
  const config = readConfig({
    CLEAR_SITTING_DATA: folder,
    CLEAR_SITTING_TEST_CLOCK: 'true',
    ...LONG,
    ...settings,
  });
  const wired = wire(config, 'silent');
  const { services, outbox, sittings } = wired;
  const server = createServer(buildListener(services, allEndpoints(services, outbox, sittings))).listen(
    0,
    '127.0.0.1',
  );
  // As in `start.ts`: a connection that is closed between two requests of a slow test would fail the later one.
  server.keepAliveTimeout = 75_000;
  await once(server, 'listening');
  const { port } = server.address() as AddressInfo;
  return new Served(wired, `http://127.0.0.1:${port}`, () => server.close());
}
