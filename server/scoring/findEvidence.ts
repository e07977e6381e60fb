import type { EvidenceFound, EvidenceRequest } from '../../core/kinds/evidence';
import type { Services } from '../services';

/** Runs what a part has to have run, each sort where it belongs. `owner` waits in turn with others. */
export async function findEvidence(
  { sandbox, expressions }: Pick<Services, 'sandbox' | 'expressions'>,
  request: EvidenceRequest,
  owner: string,
): Promise<EvidenceFound> {
  if (request.sort === 'expression') return expressions.compare(request.run);
  return { sort: 'program', outcomes: await sandbox.run(request.run, owner) };
}
