import type { EvidenceFound } from '../../core/kinds/evidence';
import { badRequest, conflict, notFound } from '../http/errors';
import type { HasSessions } from '../http/sessions';
import type { HasDb } from '../db/open';
import { evidenceKept } from '../scoring/keptEvidence';
import { findEvidence, type HasEvidence } from '../scoring/findEvidence';
import { MachineTrouble } from '../sandbox/sandbox';
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

/** What was found when a script was scored, as its kind shows it; null where it was never found. Nothing is run. */
export function inspectPart({ db }: HasDb, { sitting, part }: MarkedPart): unknown {
  const evidence = evidenceKept(db, sitting.id, part);
  return evidence && part.kind.inspect({ content: part.part.content, response: part.response, evidence });
}

export const inspectTask = (services: Needs, staffId: number, taskId: number): unknown =>
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
