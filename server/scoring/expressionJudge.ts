import type { ExpressionFound, ExpressionRun } from '../../core/kinds/evidence';
import { WarmWorker } from './warmWorker';

const LIMITS = { taskMs: 2000, megabytes: 256 };

/** Compares expressions in a worker thread, never on the request path. One that hangs is left to people. */
export class ExpressionJudge {
  private readonly worker = new WarmWorker<ExpressionRun, ExpressionFound>(
    new URL('./expressionWorker.ts', import.meta.url),
    LIMITS,
  );

  async compare(run: ExpressionRun): Promise<ExpressionFound> {
    const [worked] = await this.worker.work([run]);
    if (worked && 'result' in worked) return worked.result;
    return { sort: 'expression', is: 'undecided', why: worked?.trouble ?? '', inForm: null };
  }

  close(): Promise<void> {
    return this.worker.close();
  }
}

export interface HasExpressions {
  readonly expressions: ExpressionJudge;
}
