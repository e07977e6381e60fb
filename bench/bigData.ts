/* Grows a seeded database to the size of a busy installation: 50 rounds, 5,000 sittings, 5 million rows of journal. */
import type Sqlite from 'better-sqlite3';

export interface Size {
  readonly rounds: number;
  readonly sittingsEach: number;
  readonly entriesEach: number;
}

export const BIG: Size = { rounds: 50, sittingsEach: 100, entriesEach: 1000 };

interface Template {
  readonly round: number;
  readonly sittings: readonly { readonly id: number; readonly invitation: number; readonly person: number }[];
}

/** A round of the demo that has scripts, to be copied. */
function templateOf(db: Sqlite.Database, key: string): Template {
  const round = db.prepare('select id from rounds where key = ?').pluck().get(key) as number;
  const sittings = db
    .prepare(
      `select s.id, i.id as invitation, i.person_id as person from sittings s
       join invitations i on i.id = s.invitation_id
       where i.round_id = ? and s.closed_at is not null`,
    )
    .all(round) as Template['sittings'];
  if (sittings.length === 0) throw new Error(`${key} has no scripts to copy`);
  return { round, sittings };
}

/** Every column of a table but some, for `insert … select`. */
const columnsOf = (db: Sqlite.Database, table: string, but: readonly string[]): string =>
  (db.pragma(`table_info(${table})`) as { name: string }[])
    .map(({ name }) => `"${name}"`)
    .filter((name) => !but.includes(name.slice(1, -1)))
    .join(', ');

/** Copies rows of a table with some columns set again. */
function copier(db: Sqlite.Database, table: string, set: readonly string[], where: string) {
  const rest = columnsOf(db, table, ['id', 'arrival', ...set]);
  return db.prepare(
    `insert into ${table} (${set.map((name) => `"${name}"`).join(', ')}, ${rest})
     select ${set.map((name) => `@${name}`).join(', ')}, ${rest} from ${table} where ${where}`,
  );
}

export function growBig(db: Sqlite.Database, { rounds, sittingsEach, entriesEach }: Size): void {
  const open = templateOf(db, 'technician-november');
  const done = templateOf(db, 'technician-october');
  const round = copier(db, 'rounds', ['key', 'title'], 'id = @from');
  const roundStaff = copier(db, 'round_staff', ['round_id'], 'round_id = @from');
  const person = db.prepare('insert into people (name, email, reference) values (?, ?, ?)');
  const invitation = copier(db, 'invitations', ['round_id', 'person_id'], 'id = @from');
  const sitting = copier(db, 'sittings', ['invitation_id', 'script', 'device_name'], 'id = @from');
  const ofSitting = [
    'holds',
    'heads',
    'time_events',
    'current_answers',
    'receipts',
    'journal',
    'evidence',
  ].map((table) => copier(db, table, ['sitting_id'], 'sitting_id = @from'));
  const marks = copier(db, 'marks', ['sitting_id', 'supersedes'], 'sitting_id = @from');
  const letter = copier(db, 'letters', ['invitation_id', 'to'], 'invitation_id = @from');
  const arrival = copier(db, 'arrivals', ['invitation_id'], 'invitation_id = @from');
  const tasks = db.prepare(
    `insert into marking_tasks (id, round_id, sitting_id, target, role, failure, trouble, response, assessor_id, position, judgement_id, done_at)
     select abs(random()) / 4096, @round_id, @sitting_id, target, role, failure, trouble, response, assessor_id, position, judgement_id, done_at
     from marking_tasks where sitting_id = @from`,
  );
  let n = 0;
  db.transaction(() => {
    for (let r = 0; r < rounds; r++) {
      const template = r % 2 === 0 ? open : done;
      const round_id = Number(
        round.run({ from: template.round, key: `big-${r}`, title: `Technician, group ${r + 1}` })
          .lastInsertRowid,
      );
      roundStaff.run({ from: template.round, round_id });
      for (let s = 0; s < sittingsEach; s++) {
        n += 1;
        const like = template.sittings[s % template.sittings.length]!;
        const email = `big.${n}@example.org`;
        const person_id = Number(person.run(`Candidate ${n}`, email, `BIG-${n}`).lastInsertRowid);
        const invitation_id = Number(
          invitation.run({ from: like.invitation, round_id, person_id }).lastInsertRowid,
        );
        letter.run({ from: like.invitation, invitation_id, to: email });
        arrival.run({ from: like.invitation, invitation_id });
        const made = { from: like.id, invitation_id, script: `BIG${n}`, device_name: `big-${n}` };
        const sitting_id = Number(sitting.run(made).lastInsertRowid);
        for (const copy of ofSitting) copy.run({ from: like.id, sitting_id });
        marks.run({ from: like.id, sitting_id, supersedes: null });
        tasks.run({ from: like.id, round_id, sitting_id });
      }
    }
  })();
  db.prepare(
    `insert into journal (sitting_id, hold, number, variant, about, target, patch, claimed_at, arrived_at)
     with recursive n (k) as (select 1 union all select k + 1 from n where k < ?)
     select s.id, 1, 1000 + n.k, 0, 'answer', 'incident-note/A',
       '[1,' || n.k || ',0,"a word or two of a note","0123456789abcdef"]', s.started_at, s.started_at
     from sittings s cross join n where s.device_name like 'big-%'`,
  ).run(entriesEach);
  db.exec('analyze');
}
