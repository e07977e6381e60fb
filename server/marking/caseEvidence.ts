import type { EvidenceFound } from '../../core/kinds/evidence';
import { evidenceFor } from '../../core/scoring/script';
import { badRequest, conflict, notFound } from '../http/errors';
import type { HasSessions } from '../http/sessions';
import type { HasDb } from '../db/open';
import { findEvidence, gatherEvidence, type HasEvidence } from '../scoring/findEvidence';
import { MachineTrouble } from '../sandbox/sandbox';
import { knownEvidence } from './scoreJob';
import { findTask, partOf, type MarkedPart, type Task } from './scripts';

interface Needs extends HasDb, HasSessions, HasEvidence {}

/** The task of an assessor, or of a lead of its round; nobody else learns that there is one. */
function ownTask({ db, sessions }: HasDb & HasSessions, staffId: number, taskId: number): Task {
  const task = findTask(db, taskId);
  if (!task || !sessions.hasRole(staffId, task.roundId, ['assessor', 'lead'])) throw notFound('noScript');
  const lead = sessions.hasRole(staffId, task.roundId, ['lead']);
  if (!lead && task.assessorId !== staffId) throw notFound('noScript');
  return task;
}

class NotFoundYet extends Error {}

/** What was found when a script was scored, as its kind shows it; null where it was never found. Nothing is run. */
export async function inspectPart({ db }: HasDb, { sitting, part }: MarkedPart): Promise<unknown> {
  const find = (request: Parameters<typeof knownEvidence>[1]['request']): Promise<EvidenceFound> => {
    const known = knownEvidence(db, { sittingId: sitting.id, target: part.target, request });
    return known ? Promise.resolve(known) : Promise.reject(new NotFoundYet());
  };
  try {
    const evidence = await gatherEvidence((found) => Promise.resolve(evidenceFor(part, found)), find);
    return part.kind.inspect({ content: part.part.content, response: part.response, evidence });
  } catch (error) {
    if (error instanceof NotFoundYet) return null;
    throw error;
  }
}

export const inspectTask = (services: Needs, staffId: number, taskId: number): Promise<unknown> =>
  inspectPart(services, partOf(services, ownTask(services, staffId, taskId)));

/** Runs an answer again in the box, in turn with everybody's. Nothing of it is kept, and it changes no mark. */
export async function runTaskAgain(
  services: Needs,
  staffId: number,
  { taskId, input }: { readonly taskId: number; readonly input: string },
): Promise<EvidenceFound> {
  const { part } = partOf(services, ownTask(services, staffId, taskId));
  const request = part.empty ? null : part.kind.runAgain(part.part.content, part.response, input);
  if (request === null) throw badRequest('inputNotPossible');
  try {
    return await findEvidence(services, request, `staff ${staffId}`);
  } catch (error) {
    if (error instanceof MachineTrouble) throw conflict('not-run');
    throw error;
  }
}
