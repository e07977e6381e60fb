import { and, eq } from 'drizzle-orm';
import { canonicalJson } from '../../core/journal/canonicalJson';
import type { EvidenceFound, EvidenceRequest } from '../../core/kinds/evidence';
import { evidenceFor, type ScriptPart } from '../../core/scoring/script';
import type { Db } from '../db/open';
import { evidence } from '../db/schema';
import { sha256 } from '../secrets';

export interface Requested {
  readonly sittingId: number;
  readonly target: string;
  readonly request: EvidenceRequest;
}

/** What was found before of the very same run; null where it was never run. */
export function knownEvidence(db: Db, { sittingId, target, request }: Requested): EvidenceFound | null {
  const same = and(
    eq(evidence.sittingId, sittingId),
    eq(evidence.target, target),
    eq(evidence.request, request.key),
    eq(evidence.input, sha256(canonicalJson(request.run))),
  );
  return db.select().from(evidence).where(same).get()?.document ?? null;
}

/** Everything that was found of a part when it was scored; null where something of it was never found. Nothing is run. */
export function evidenceKept(
  db: Db,
  sittingId: number,
  part: ScriptPart,
): Readonly<Record<string, EvidenceFound>> | null {
  const found: Record<string, EvidenceFound> = {};
  for (;;) {
    const request = evidenceFor(part, found).find(({ key }) => !Object.hasOwn(found, key));
    if (!request) return found;
    const known = knownEvidence(db, { sittingId, target: part.target, request });
    if (!known) return null;
    found[request.key] = known;
  }
}
