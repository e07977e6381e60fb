import type { EvidenceFound, EvidenceRequest } from '../../core/kinds/evidence';
import type { HasSandbox } from '../sandbox/sandbox';
import type { HasExpressions } from './expressionJudge';

/** Runs what a part has to have run, each sort where it belongs. `owner` waits in turn with others. */
export async function findEvidence(
  { sandbox, expressions }: HasSandbox & HasExpressions,
  request: EvidenceRequest,
  owner: string,
): Promise<EvidenceFound> {
  if (request.sort === 'expression') return expressions.compare(request.run);
  return { sort: 'program', outcomes: await sandbox.run(request.run, owner) };
}
