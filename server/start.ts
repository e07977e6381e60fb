import { createServer, type Server } from 'node:http';
import { allEndpoints, buildListener } from './app';
import type { Config } from './config';
import { SteadyClock } from './machine/clock';
import { probe } from './health/probe';
import { acceptMore } from './http/acceptMore';
import type { Endpoint } from './http/endpoint';
import type { Services } from './wire';
import { wire, type Wired } from './wire';

/** Connections that may wait to be taken up: a whole round opens its links in the same minute. */
const BACKLOG = 4096;
/** Connections that are taken up in one turn of the event loop. */
const LISTENERS = 8;

/** How often the clock is compared with the machine's, and how often all else is looked after; ms. */
const CLOCK_MS = 1000;
const PROBE_MS = 10_000;

/** Looks after clock, disk and database as long as the server runs. */
function watchMachine(services: Services): void {
  const look = () =>
    void probe(services).catch((trouble: unknown) => services.log.error({ err: trouble }, 'a probe failed'));
  look();
  setInterval(look, PROBE_MS).unref();
  setInterval(() => {
    if (services.clock instanceof SteadyClock && services.clock.check()) look();
  }, CLOCK_MS).unref();
}

/** Starts the server by its configuration; `more` adds routes, as the bench does. Stops by SIGTERM and SIGINT. */
export function start(config: Config, more: (wired: Wired) => Endpoint[] = () => []): Server {
  const wired = wire(config);
  const { services, outbox, sittings, checkpoints, close } = wired;
  const { log, jobs, sandbox } = services;
  const server = createServer(
    buildListener(services, [...allEndpoints(services, outbox, sittings), ...more(wired)]),
  );
  server.on('connection', () => services.scheduler.noteConnection());
  server.on('error', (error) => {
    log.fatal({ err: error }, `Port ${config.port} cannot be used. Stop what runs there, or set PORT.`);
    process.exit(1);
  });
  let stopListening = () => undefined as void;
  server.listen({ port: config.port, host: config.host, backlog: BACKLOG }, () => {
    stopListening = acceptMore(server, { listeners: LISTENERS, backlog: BACKLOG });
    log.info(`Clear Sitting answers at ${config.publicUrl}`);
    const first = services.firstAccount.open();
    // Whatever else is logged: without this line nobody gets in.
    if (first)
      console.log(
        `Nobody has an account yet. Make the first one at ${config.publicUrl}/first-account/${first}`,
      );
    jobs.start();
    checkpoints.start();
    watchMachine(services);
    if (!config.warmUp) return;
    for (const helper of [services.pictures, services.reader, services.printer])
      helper.warmUp().catch((trouble: unknown) => log.error({ err: trouble }, 'a helper cannot start'));
    sandbox
      .warmUp()
      .catch((trouble: unknown) => log.error({ err: trouble }, 'the code sandbox cannot start'));
  });
  // Desks save every ten seconds or so: their connections stay open in between.
  server.keepAliveTimeout = 75_000;
  server.headersTimeout = 80_000;
  const stop = () => {
    server.close();
    stopListening();
    void close().then(() => process.exit(0));
  };
  process.on('SIGTERM', stop);
  process.on('SIGINT', stop);
  return server;
}
