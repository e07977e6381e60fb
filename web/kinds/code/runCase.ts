import type { CaseJob, EngineReply } from '../../../core/programs/engine';

/** Serves the page from inside a worker: says when the engine is there, and answers one job at a time. */
export function serveCases(ready: Promise<unknown>, run: (job: CaseJob) => Promise<EngineReply>): void {
  self.onmessage = (event: MessageEvent<CaseJob>) => {
    void run(event.data).then((reply) => self.postMessage(reply));
  };
  ready.then(
    () => self.postMessage({ ready: true }),
    (error: unknown) => self.postMessage({ failed: String(error) }),
  );
}
