import path from 'node:path';
import Joi from 'joi';

/** Configuration by environment, with safe defaults: nothing here opens a door unless it is set. */
export interface Config {
  readonly host: string;
  readonly port: number;
  readonly dataFolder: string;
  /** How people reach this server, for links in letters. */
  readonly publicUrl: string;
  readonly organisation: string;
  readonly smtpUrl: string | null;
  readonly mailFrom: string;
  /** A drawn person instead of a camera, offered to candidates. For the demo and for tests only. */
  readonly standInCamera: boolean;
  /** Lets a test move the server's clock. For tests only. */
  readonly testClock: boolean;
  readonly webFolder: string;
  readonly sandboxFolder: string;
}

const root = path.resolve(import.meta.dirname, '..');

const schema = Joi.object({
  HOST: Joi.string().default('127.0.0.1'),
  PORT: Joi.number().port().default(4600),
  CLEAR_SITTING_DATA: Joi.string().default(path.join(root, 'data')),
  CLEAR_SITTING_URL: Joi.string().uri(),
  CLEAR_SITTING_ORGANISATION: Joi.string().max(100).default('Hollin Reach Seed Archive'),
  SMTP_URL: Joi.string().uri({ scheme: ['smtp', 'smtps'] }),
  MAIL_FROM: Joi.string().default('Clear Sitting <tests@example.org>'),
  CLEAR_SITTING_STANDIN_CAMERA: Joi.boolean().default(false),
  CLEAR_SITTING_TEST_CLOCK: Joi.boolean().default(false),
}).unknown();

export function readConfig(environment: Record<string, string | undefined>): Config {
  const { error, value } = schema.validate(environment) as { error?: Error; value: Record<string, unknown> };
  if (error) throw new Error(`The configuration cannot be used: ${error.message}`);
  const [host, port] = [String(value.HOST), Number(value.PORT)];
  return {
    host,
    port,
    dataFolder: path.resolve(String(value.CLEAR_SITTING_DATA)),
    publicUrl: String(value.CLEAR_SITTING_URL ?? `http://localhost:${port}`).replace(/\/$/, ''),
    organisation: String(value.CLEAR_SITTING_ORGANISATION),
    smtpUrl: value.SMTP_URL ? String(value.SMTP_URL) : null,
    mailFrom: String(value.MAIL_FROM),
    standInCamera: value.CLEAR_SITTING_STANDIN_CAMERA === true,
    testClock: value.CLEAR_SITTING_TEST_CLOCK === true,
    webFolder: path.join(root, 'dist/web'),
    sandboxFolder: path.join(root, 'dist/sandbox'),
  };
}
