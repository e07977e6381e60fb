import { allEndpoints, buildApp } from './app';
import { readConfig } from './config';
import { wire } from './wire';

const config = readConfig(process.env);
const { services, outbox, sittings, close } = wire(config);
const { log, jobs, sandbox } = services;

const app = buildApp(services, allEndpoints(services, outbox, sittings));
const server = app.listen(config.port, config.host, (error) => {
  if (error) {
    log.fatal({ err: error }, `Port ${config.port} cannot be used. Stop what runs there, or set PORT.`);
    process.exit(1);
  }
  log.info(`Clear Sitting answers at ${config.publicUrl}`);
  jobs.start();
  sandbox.warmUp().catch((trouble: unknown) => log.error({ err: trouble }, 'the code sandbox cannot start'));
});

const stop = () => {
  server.close();
  void close().then(() => process.exit(0));
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
