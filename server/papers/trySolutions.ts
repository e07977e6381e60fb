import { placeOf } from '../../core/forms/drawForm';
import { canonicalJson } from '../../core/journal/canonicalJson';
import type { Issue } from '../../core/kinds/contract';
import type { EvidenceFound, EvidenceRequest } from '../../core/kinds/evidence';
import { keyKindOf } from '../../core/kinds/keyKinds';
import type { FullPaper, Item, Part } from '../../core/papers/paper';
import { gatherEvidence, type HasEvidence } from '../scoring/findEvidence';
import { runNow } from '../scoring/runNow';
import { sha256 } from '../secrets';

/** A solution is run so often: its longest time proposes the limit. */
const RUNS = 5;
/** Parts whose solutions were tried lately, by the hash of their content: what was checked is published right after. */
const MOST_KNOWN = 200;
const known = new Map<string, readonly Issue[]>();

/** Of several runs of one solution the one with the longest case. */
function longest(runs: readonly EvidenceFound[]): EvidenceFound {
  const most = (found: EvidenceFound) =>
    found.sort === 'program' ? Math.max(0, ...found.outcomes.map((one) => one.milliseconds)) : 0;
  return runs.reduce((a, b) => (most(b) > most(a) ? b : a));
}

async function tryPart(services: HasEvidence, item: Item, part: Part): Promise<readonly Issue[]> {
  const kind = keyKindOf(part.kind);
  const issues: Issue[] = [];
  const place = placeOf(item, part, 'en');
  for (const solution of kind.solutions(part.content)) {
    const find = async (request: EvidenceRequest) => {
      const runs: EvidenceFound[] = [];
      const times = request.sort === 'program' && solution.right ? RUNS : 1;
      for (let n = 0; n < times; n++) runs.push(await runNow(services, request, 'solutions'));
      return longest(runs);
    };
    const asked = { content: part.content, response: solution.response, arrangement: null, place };
    const evidence = await gatherEvidence((found) => Promise.resolve(kind.evidence(asked, found)), find);
    issues.push(...kind.issuesOfSolution(part.content, solution, evidence));
  }
  return issues;
}

/** Runs the authors' own solutions of a paper. Issues name the item and the part that they are about. */
export async function trySolutions(
  services: HasEvidence,
  { bank }: Pick<FullPaper, 'bank'>,
): Promise<readonly { readonly item: number; readonly part: number; readonly issue: Issue }[]> {
  const found: { item: number; part: number; issue: Issue }[] = [];
  for (const [i, item] of bank.entries())
    for (const [k, part] of item.parts.entries()) {
      const of = sha256(canonicalJson({ kind: part.kind, marks: part.marks, content: part.content }));
      const issues = known.get(of) ?? (await tryPart(services, item, part));
      if (known.size >= MOST_KNOWN) known.delete(known.keys().next().value!);
      known.set(of, issues);
      found.push(...issues.map((issue) => ({ item: i, part: k, issue })));
    }
  return found;
}
