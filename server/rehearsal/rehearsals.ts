import type { EvidenceFound } from '../../core/kinds/evidence';
import type { Config } from '../config';
import { Helper } from '../helpers/helper';
import { findEvidence, type HasEvidence } from '../scoring/findEvidence';
import type { PartEvidence, RehearsalHanded } from './rehearsalHelper';

/** What reading and scoring one rehearsal may take: a hundred times an honest one. */
const LIMIT_PROCESSOR_MS = 5_000;
const LIMIT_MS = 60_000;
const MOST_WAITING = 500;

/**
 * Reads and scores rehearsals in a process of its own, whoever sends them in turns; nothing of them is kept. It is started
 * when the first one comes.
 */
export class Rehearsals {
  private readonly helper: Helper;
  private readonly evidence: HasEvidence;

  constructor(config: Config, evidence: HasEvidence) {
    this.evidence = evidence;
    this.helper = new Helper({
      script: new URL('./rehearsalHelper.ts', import.meta.url),
      data: config,
      limitMs: LIMIT_MS,
      limitProcessorMs: LIMIT_PROCESSOR_MS,
      mostWaiting: MOST_WAITING,
    });
  }

  /** What has to be run before it can be scored; refuses what is no rehearsal. */
  read(handed: RehearsalHanded, sender: string): Promise<readonly PartEvidence[]> {
    return this.helper.ask('evidence', handed, sender);
  }

  /** The result sheet as JSON. `owner` is whose programs run in the sandbox. */
  async score(
    handed: RehearsalHanded,
    { parts, sender, owner }: { parts: readonly PartEvidence[]; sender: string; owner: string },
  ): Promise<string> {
    const found: Record<string, Record<string, EvidenceFound>> = {};
    for (let asked = parts; asked.length > 0;) {
      let more = false;
      for (const { target, requests } of asked) {
        const own = (found[target] ??= {});
        for (const request of requests.filter(({ key }) => !Object.hasOwn(own, key))) {
          own[request.key] = await findEvidence(this.evidence, request, owner);
          more = true;
        }
      }
      // One run may follow from another.
      asked = more
        ? await this.helper.ask<readonly PartEvidence[]>('evidence', { ...handed, found }, sender)
        : [];
    }
    return this.helper.ask('score', { ...handed, found }, sender);
  }

  close(): void {
    this.helper.close();
  }
}

export interface HasRehearsals {
  readonly rehearsals: Rehearsals;
}
