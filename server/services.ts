import type { Logger } from 'pino';
import type { FirstAccount } from './accounts/firstAccount';
import type { ServerClock } from './machine/clock';
import type { Config } from './config';
import type { GroupCommit } from './db/groupCommit';
import type { Db } from './db/open';
import type { Files } from './files/files';
import type { Troubles } from './machine/troubles';
import type { Sessions } from './http/sessions';
import type { JobQueue } from './jobs/jobQueue';
import type { Hub } from './live/hub';
import type { SealedMedia } from './media/sealedMedia';
import type { Pictures } from './pictures/pictures';
import type { Reader } from './reading/reader';
import type { PaperReader } from './papers/paperReader';
import type { Printer } from './printing/printer';
import type { Sandbox } from './sandbox/sandbox';
import type { Rehearsals } from './rehearsal/rehearsals';
import type { ExpressionJudge } from './scoring/expressionJudge';
import type { LoadMeter } from './machine/loadMeter';
import type { Scorer } from './scoring/scorer';
import type { TimeKeeper } from './sittings/timeKeeper';
import type { LoopScheduler } from './machine/loopScheduler';
import type { Uploads } from './uploads/uploads';

/** What the features stand on; built once in `main.ts` and handed down. */
export interface Services {
  readonly config: Config;
  readonly clock: ServerClock;
  readonly db: Db;
  readonly commits: GroupCommit;
  readonly time: TimeKeeper;
  readonly hub: Hub;
  readonly scheduler: LoopScheduler;
  readonly load: LoadMeter;
  readonly log: Logger;
  /** What is wrong with the machine or the service, while it is. */
  readonly troubles: Troubles;
  readonly sessions: Sessions;
  readonly firstAccount: FirstAccount;
  readonly files: Files;
  readonly media: SealedMedia;
  readonly pictures: Pictures;
  readonly uploads: Uploads;
  readonly reader: Reader;
  readonly printer: Printer;
  readonly paperReader: PaperReader;
  readonly jobs: JobQueue;
  readonly sandbox: Sandbox;
  readonly scorer: Scorer;
  readonly expressions: ExpressionJudge;
  readonly rehearsals: Rehearsals;
  /** Generated at the first start, kept in the database; signs nothing a person sees. */
  readonly secret: string;
}
