import path from 'node:path';
import { pino } from 'pino';
import { MovableClock, SteadyClock } from './machine/clock';
import { FirstAccount } from './accounts/firstAccount';
import { rescore } from './corrections/rescoreJob';
import type { Config } from './config';
import { Checkpoints } from './checkpoints/checkpoints';
import { GroupCommit } from './db/groupCommit';
import { lastKnown } from './machine/lastKnown';
import { openDatabase } from './db/open';
import { serverSecret } from './db/serverSecret';
import { Files } from './files/files';
import { FileStore } from './files/fileStore';
import { Sessions } from './http/sessions';
import { Troubles } from './machine/troubles';
import { JobQueue } from './jobs/jobQueue';
import { Hub } from './events/hub';
import { Outbox } from './mail/outbox';
import { allocateRound } from './marking/allocation';
import { scoreSitting } from './marking/scoreJob';
import { SealedMedia } from './media/sealedMedia';
import { Pictures } from './pictures/pictures';
import { Reader } from './reading/reader';
import { PaperReader } from './papers/paperReader';
import { Printer } from './printing/printer';
import { LoadMeter } from './machine/loadMeter';
import { Sandbox } from './sandbox/sandbox';
import { makePack } from './results/packs';
import { printAhead } from './results/printed';
import { announceResults, releaseDue } from './results/release';
import { Rehearsals } from './rehearsal/rehearsals';
import { ProgramTexts, type HasProgramTexts } from './scoring/programTexts';
import { ExpressionJudge } from './scoring/expressionJudge';
import { Scorer } from './scoring/scorer';
import { SittingOperations } from './sittings/operations';
import { TimeKeeper } from './sittings/timeKeeper';
import { subjectsOf } from './candidates/jobSubjects';
import { LoopScheduler } from './machine/loopScheduler';
import { Uploads } from './uploads/uploads';
import type { HasConfig } from './config';
import type { HasClock } from './machine/clock';
import type { HasDb } from './db/open';
import type { HasCommits } from './db/groupCommit';
import type { HasTime } from './sittings/timeKeeper';
import type { HasHub } from './events/hub';
import type { HasScheduler } from './machine/loopScheduler';
import type { HasLoad } from './machine/loadMeter';
import type { HasTroubles } from './machine/troubles';
import type { HasSessions } from './http/sessions';
import type { HasFirstAccount } from './accounts/firstAccount';
import type { HasFiles } from './files/files';
import type { HasMedia } from './media/sealedMedia';
import type { HasPictures } from './pictures/pictures';
import type { HasUploads } from './uploads/uploads';
import type { HasReader } from './reading/reader';
import type { HasPrinter } from './printing/printer';
import type { HasPaperReader } from './papers/paperReader';
import type { HasJobs } from './jobs/jobQueue';
import type { HasSandbox } from './sandbox/sandbox';
import type { HasScorer } from './scoring/scorer';
import type { HasExpressions } from './scoring/expressionJudge';
import type { HasRehearsals } from './rehearsal/rehearsals';
import type { HasLog } from './machine/log';
import type { HasSecret } from './db/serverSecret';

/** Everything that the features stand on, each of which names what it takes of it. Known to the wiring alone. */
export interface Services
  extends
    HasConfig,
    HasClock,
    HasDb,
    HasCommits,
    HasTime,
    HasHub,
    HasScheduler,
    HasLoad,
    HasTroubles,
    HasSessions,
    HasFirstAccount,
    HasFiles,
    HasMedia,
    HasPictures,
    HasUploads,
    HasReader,
    HasPrinter,
    HasPaperReader,
    HasJobs,
    HasSandbox,
    HasScorer,
    HasExpressions,
    HasProgramTexts,
    HasRehearsals,
    HasLog,
    HasSecret {}

export interface Wired {
  readonly services: Services;
  readonly outbox: Outbox;
  readonly sittings: SittingOperations;
  /** Begun by whoever answers requests. */
  readonly checkpoints: Checkpoints;
  readonly close: () => Promise<void>;
}

/** All wiring, top to bottom; the server, the seed and the tests stand on the same. */
export function wire(config: Config, logLevel = process.env.LOG_LEVEL ?? 'info'): Wired {
  const log = pino({ level: logLevel });
  const file = path.join(config.dataFolder, 'clear-sitting.sqlite');
  const db = openDatabase(file);
  const clock = config.testClock ? new MovableClock() : new SteadyClock();
  if (clock instanceof SteadyClock) clock.startFrom(lastKnown(db));
  const troubles = new Troubles(clock, log);
  const checkpoints = new Checkpoints(file, troubles);
  const time = new TimeKeeper(db);
  const commits = new GroupCommit(db);
  commits.onTakenBack(() => time.forget());
  commits.onOutcome((error) => (error === null ? troubles.wrote() : troubles.take(error)));
  const load = new LoadMeter();
  const jobs = new JobQueue(db, commits, clock, log, load);
  const store = new FileStore(path.join(config.dataFolder, 'files'));
  const files = new Files(db, commits, store, clock, jobs);
  const pictures = new Pictures();
  const printer = new Printer();
  const uploads = new Uploads(
    { db, clock, commits, files, pictures, printer },
    path.join(config.dataFolder, 'pages'),
  );
  const sandbox = new Sandbox(config.sandboxFolder, { rule: config.code, log });
  const expressions = new ExpressionJudge();
  const programTexts = new ProgramTexts(sandbox);
  const services: Services = {
    config,
    clock,
    db,
    log,
    troubles,
    jobs,
    commits,
    time,
    hub: new Hub(),
    scheduler: new LoopScheduler(),
    load,
    sessions: new Sessions(db, clock, config),
    firstAccount: new FirstAccount(db),
    files,
    media: new SealedMedia(db, store),
    pictures,
    uploads,
    reader: new Reader(config, clock),
    printer,
    paperReader: new PaperReader(),
    sandbox,
    scorer: new Scorer(),
    expressions,
    programTexts,
    rehearsals: new Rehearsals(config, { sandbox, expressions, programTexts }),
    secret: serverSecret(db),
  };
  const outbox = new Outbox(db, clock, jobs, config);
  const sittings = new SittingOperations(services, outbox);
  const about = subjectsOf(db);
  jobs.handle('rescore', 'scoring', (correction) => rescore(services, outbox, correction), about.correction);
  jobs.handle(
    'score',
    'scoring',
    (sitting, attempt) => scoreSitting(services, sitting, attempt),
    about.sitting,
  );
  jobs.handle('allocate', 'marking', (round) => allocateRound(services, round), about.round);
  jobs.handle(
    'announce-results',
    'letters',
    (round) => announceResults(services, outbox, round),
    about.round,
  );
  jobs.handle('print-result', 'printing', (invitation) => printAhead(services, invitation), about.invitation);
  jobs.handle('pack', 'packs', (pack) => makePack(services, pack), about.pack);
  jobs.sweep(() => sittings.sweep());
  jobs.sweep(() => releaseDue(services));
  const close = async () => {
    const stopped = jobs.stop();
    services.sandbox.close();
    await stopped;
    services.pictures.close();
    services.reader.close();
    services.printer.close();
    services.paperReader.close();
    services.rehearsals.close();
    await services.scorer.close();
    await services.expressions.close();
    await services.programTexts.close();
    await checkpoints.stop();
    db.$client.close();
  };
  return { services, outbox, sittings, checkpoints, close };
}
