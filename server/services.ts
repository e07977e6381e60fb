import type { Logger } from 'pino';
import type { Clock } from './clock';
import type { Config } from './config';
import type { Db } from './db/open';
import type { FileStore } from './files/fileStore';
import type { Sessions } from './http/sessions';
import type { JobQueue } from './jobs/jobQueue';
import type { Sandbox } from './sandbox/sandbox';

/** What the features stand on; built once in `main.ts` and handed down. */
export interface Services {
  readonly config: Config;
  readonly clock: Clock;
  readonly db: Db;
  readonly log: Logger;
  readonly sessions: Sessions;
  readonly files: FileStore;
  readonly jobs: JobQueue;
  readonly sandbox: Sandbox;
  /** Generated at the first start, kept in the database; signs nothing a person sees. */
  readonly secret: string;
}
