import { createServer, type Server } from 'node:http';
import { allEndpoints, buildApp } from './app';
import type { Config } from './config';
import { acceptMore } from './http/acceptMore';
import type { Endpoint } from './http/endpoint';
import { wire, type Wired } from './wire';

/** Connections that may wait to be taken up: a whole round opens its links in the same minute. */
const BACKLOG = 4096;
/** Connections that are taken up in one turn of the event loop. */
const LISTENERS = 8;

/** Starts the server by its configuration; `more` adds routes, as the bench does. Stops by SIGTERM and SIGINT. */
export function start(config: Config, more: (wired: Wired) => Endpoint[] = () => []): Server {
  const wired = wire(config);
  const { services, outbox, sittings, checkpoints, close } = wired;
  const { log, jobs, sandbox } = services;
  const server = createServer(
    buildApp(services, [...allEndpoints(services, outbox, sittings), ...more(wired)]),
  );
  server.on('connection', () => services.turns.noteConnection());
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
