import { writeLetter } from '../../core/letters/letters';
import { say } from '../../core/messages/words';
import { findByLink } from './links';
import { once } from 'node:events';
import { createServer, type AddressInfo, type Server } from 'node:net';
import { afterEach, describe, expect, it } from 'vitest';
import type { Letter } from '../../core/rounds/api';
import { ApiClient } from '../testing/ApiClient';
import { serve, type Served } from '../testing/serve';
import { samplePaper } from '../testing/samplePaper';

let app: Served;
let post: Server | null = null;
afterEach(async () => {
  await app.close();
  post?.close();
  post = null;
});

/** A mail server (RFC 5321) that takes every letter or, while it `refuses`, knows no recipient. */
async function mailServer() {
  const letters: string[] = [];
  const state = { url: '', letters, refuses: false };
  post = createServer((socket) => {
    let letter: string[] | null = null;
    const say = (line: string) => void socket.write(`${line}\r\n`);
    const hear = (line: string): void => {
      if (letter && line !== '.') return void letter.push(line);
      if (letter) {
        letters.push(letter.join('\n'));
        letter = null;
        return say('250 taken');
      }
      if (line === 'DATA') {
        letter = [];
        return say('354 go on');
      }
      if (line === 'QUIT') return void socket.end('221 goodbye\r\n');
      say(line.startsWith('RCPT') && state.refuses ? '550 nobody of that name' : '250 well');
    };
    let held = '';
    socket.on('data', (bytes) => {
      const lines = (held + String(bytes)).split('\r\n');
      held = lines.pop()!;
      lines.forEach(hear);
    });
    socket.on('error', () => undefined);
    say('220 here');
  });
  post.listen(0, '127.0.0.1');
  await once(post, 'listening');
  state.url = `smtp://127.0.0.1:${(post.address() as AddressInfo).port}`;
  return state;
}

describe('the outbox', () => {
  it('is the letter box itself where there is no mail server', async () => {
    app = await serve();
    const link = app.invite(app.addRound(samplePaper()));
    const { outbox } = app.wired;
    const [row] = outbox.list();
    expect(row).toMatchObject({ to: 'candidate.1@example.org', state: 'not sent' });
    // To read a letter makes no link, however often; a new link ends those before it, on record.
    for (let n = 0; n < 25; n++) expect(outbox.read(row!.id)!.secret).toBeNull();
    const open = (secret: string) => new ApiClient(app.url).post('/arrival/open', { link: secret });
    expect((await open(link)).status).toBe(200);
    const coordinator = app.staff('coordinator');
    const made = (await coordinator.post<Letter>(`/letters/${row!.id}/new-link`)).body.secret!;
    expect((await open(link)).status).toBe(404);
    expect((await open(made.split('/i/')[1]!)).status).toBe(200);
    const acts = app.wired.services.db.query.audit.findMany().sync();
    expect(acts.at(-1)).toMatchObject({ act: 'made-link', subject: `letter ${row!.id}` });
    expect(outbox.waiting()).toBe(0);
    expect(outbox.read(4711)).toBeNull();
    expect(outbox.attachment(row!.id, 'something-else')).toBeNull();
  });

  it('sends by a job, and keeps no secret link of what was sent', async () => {
    const { url, letters } = await mailServer();
    app = await serve({ SMTP_URL: url });
    const { outbox, services } = app.wired;
    app.invite(app.addRound(samplePaper()));
    const { id } = outbox.list()[0]!;
    expect([outbox.list()[0]!.state, outbox.waiting()]).toEqual(['waiting', 1]);
    await services.jobs.turn();
    expect(letters).toHaveLength(1);
    expect(letters[0]).toContain('To: candidate.1@example.org');
    const [, secret] = /\/i\/([\w-]{27})/.exec(letters[0]!.replace(/=\n/g, ''))!;
    expect(letters[0]).toContain('filename=test-window.ics');
    expect([outbox.list()[0]!.state, outbox.waiting()]).toEqual(['sent', 0]);
    const kept = outbox.read(id)!;
    expect(kept.secret).toBeNull();
    expect(writeLetter(kept.facts, kept.secret, say)).toContain(
      '(your personal link, in the e-mail that was sent)',
    );
    const rows = services.db.$client.prepare('select * from letters').all();
    expect(JSON.stringify(rows)).not.toContain(secret);
    expect(findByLink(services.db, secret!, app.clock.now())).toBe(1);
    expect(outbox.attachment(id, 'test-window.ics')!.content).toContain('BEGIN:VEVENT');
  });

  it('says what failed, keeps no link of it, and sends it later', async () => {
    const server = await mailServer();
    server.refuses = true;
    app = await serve({ SMTP_URL: server.url });
    const { outbox, services } = app.wired;
    app.invite(app.addRound(samplePaper()));
    await services.jobs.turn();
    const { state } = outbox.list()[0]!;
    expect([state, services.jobs.open()]).toEqual(['failed', 1]);
    // The link of a letter that reached nobody leads nowhere.
    expect(services.db.$client.prepare('select count(*) as n from links').get()).toEqual({ n: 1 });
    server.refuses = false;
    app.clock.advance(60_000);
    await services.jobs.turn();
    expect(server.letters).toHaveLength(1);
    expect([outbox.list()[0]!.state, services.jobs.open()]).toEqual(['sent', 0]);
  });
});
