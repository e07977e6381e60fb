import type { EvidenceFound, EvidenceRequest } from '../../core/kinds/evidence';
import type { HasSandbox } from '../sandbox/sandbox';
import type { HasExpressions } from './expressionJudge';
import type { HasProgramTexts } from './programTexts';

/** What runs what has to be run before something can be scored. */
export interface HasEvidence extends HasSandbox, HasExpressions, HasProgramTexts {}

/** Runs what a part has to have run, each sort where it belongs. `owner` waits in turn with others. */
export async function findEvidence(
  { sandbox, expressions, programTexts }: HasEvidence,
  request: EvidenceRequest,
  owner: string,
): Promise<EvidenceFound> {
  if (request.sort === 'expression') return expressions.compare(request.run);
  if (request.sort === 'structure')
    return { sort: 'structure', structure: await programTexts.look(request.run, owner) };
  return { sort: 'program', outcomes: await sandbox.run(request.run, owner) };
}

/** Everything that has to be run, by its key: one run may follow from another, so it is asked for until nothing is new. */
export async function gatherEvidence(
  requestsFor: (found: Readonly<Record<string, EvidenceFound>>) => Promise<readonly EvidenceRequest[]>,
  find: (request: EvidenceRequest) => Promise<EvidenceFound>,
): Promise<Record<string, EvidenceFound>> {
  const found: Record<string, EvidenceFound> = {};
  for (;;) {
    const next = (await requestsFor(found)).find(({ key }) => !Object.hasOwn(found, key));
    if (!next) return found;
    found[next.key] = await find(next);
  }
}
