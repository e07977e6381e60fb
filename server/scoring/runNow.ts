import type { EvidenceFound, EvidenceRequest } from '../../core/kinds/evidence';
import { conflict } from '../http/errors';
import { MachineTrouble } from '../sandbox/sandbox';
import { findEvidence, type HasEvidence } from './findEvidence';

/** Runs something for whoever waits for it; where the machine cannot, they are told to try again. */
export async function runNow(
  services: HasEvidence,
  request: EvidenceRequest,
  owner: string,
): Promise<EvidenceFound> {
  try {
    return await findEvidence(services, request, owner);
  } catch (error) {
    if (error instanceof MachineTrouble) throw conflict('not-run');
    throw error;
  }
}
