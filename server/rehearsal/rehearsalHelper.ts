import Joi from 'joi';
import { objectOf } from '../../core/validation/shapes';
import type { Credit } from '../../core/kinds/contract';
import type { EvidenceFound, EvidenceRequest } from '../../core/kinds/evidence';
import { keyKinds } from '../../core/kinds/keyKinds';
import type { RehearsalAnswers } from '../../core/rehearsal/api';
import { rehearsalScript, rehearsalSheet } from '../../core/rehearsal/scoreRehearsal';
import {
  evidenceFor,
  isForMachine,
  partsOfScript,
  toScore,
  unansweredCredits,
  type Script,
} from '../../core/scoring/script';
import type { Config } from '../config';
import { helperData, serveTasks } from '../helpers/serveTasks';
import { badRequest } from '../http/errors';
import { openReading } from '../papers/openReading';
import { scoreOne } from '../scoring/scoreOne';
import { paperToRehearse, type Rehearsed } from './paperToRehearse';

/* Whatever a browser sends to be scored without an account is read and scored here, away from those who sit a test. */

export interface RehearsalHanded {
  readonly of: Rehearsed;
  /** The body of the request, as it came. */
  readonly bytes: Uint8Array;
}

export type EvidenceAsked = RehearsalHanded & { readonly found?: EvidenceOfParts };

export interface PartEvidence {
  readonly target: string;
  readonly requests: readonly EvidenceRequest[];
}

/** What was run for a part, by the key of the request. */
export type EvidenceOfParts = Readonly<Record<string, Readonly<Record<string, EvidenceFound>>>>;

const answersBody = objectOf<RehearsalAnswers>({
  answers: Joi.object()
    .pattern(/^[a-z0-9-]{1,40}\/[A-F]$/, Joi.any())
    .max(100),
}).required();

const readingAt = openReading(helperData<Config>());

function scriptOf({ of, bytes }: RehearsalHanded): Script {
  let body: unknown;
  try {
    body = JSON.parse(Buffer.from(bytes).toString('utf8'));
  } catch {
    throw badRequest('malformed');
  }
  const checked = answersBody.validate(body, { convert: false });
  if (checked.error) throw badRequest('malformedBody', checked.error.message);
  // Nothing of it depends on the time.
  return rehearsalScript(paperToRehearse(readingAt(0).db, of), checked.value.answers);
}

function evidence({ found = {}, ...handed }: EvidenceAsked): PartEvidence[] {
  return partsOfScript(scriptOf(handed))
    .filter(isForMachine)
    .map((part) => ({ target: part.target, requests: evidenceFor(part, found[part.target]) }))
    .filter(({ requests }) => requests.length > 0);
}

/** The sheet as JSON: it goes to the device as it is. What fails is told as not marked. */
function score({ found, ...handed }: RehearsalHanded & { readonly found: EvidenceOfParts }): string {
  const script = scriptOf(handed);
  const parts = partsOfScript(script);
  const credits = new Map<string, readonly Credit[]>();
  for (const part of parts.filter(isForMachine)) {
    const scored = part.empty
      ? { credits: unansweredCredits(part) }
      : scoreOne(keyKinds, toScore(part, parts, found[part.target] ?? {}));
    if ('credits' in scored) credits.set(part.target, scored.credits);
  }
  return JSON.stringify(rehearsalSheet(script, credits));
}

serveTasks({ evidence, score });
