import type { RunAsked } from '../../core/kinds/contract';
import type { EvidenceFound } from '../../core/kinds/evidence';
import { badRequest, notFound } from '../http/errors';
import type { HasSessions } from '../http/sessions';
import type { HasDb } from '../db/open';
import { evidenceKept } from '../scoring/keptEvidence';
import type { HasEvidence } from '../scoring/findEvidence';
import { runNow } from '../scoring/runNow';
import { partOf, taskFor, type MarkedPart } from './scripts';

interface Needs extends HasDb, HasSessions, HasEvidence {}

function partFor(services: Needs, staffId: number, taskId: number): MarkedPart {
  const task = taskFor(services, staffId, taskId);
  if (!task) throw notFound('noScript');
  return partOf(services, task);
}

/** What was found when a script was scored, as its kind shows it; null where it was never found. Nothing is run. */
export function inspectPart({ db }: HasDb, { sitting, part }: MarkedPart): unknown {
  const evidence = evidenceKept(db, sitting.id, part);
  return evidence && part.kind.inspect({ content: part.part.content, response: part.response, evidence });
}

export const inspectTask = (services: Needs, staffId: number, taskId: number): unknown =>
  inspectPart(services, partFor(services, staffId, taskId));

/** Runs an answer again in the box, in turn with everybody's. Nothing of it is kept, and it changes no mark. */
export async function runTaskAgain(
  services: Needs,
  staffId: number,
  { taskId, asked }: { readonly taskId: number; readonly asked: RunAsked },
): Promise<EvidenceFound> {
  const { part } = partFor(services, staffId, taskId);
  const request = part.empty ? null : part.kind.runAgain(part.part.content, part.response, asked);
  if (request === null) throw badRequest('inputNotPossible');
  return runNow(services, request, `staff ${staffId}`);
}
