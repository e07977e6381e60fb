import path from 'node:path';
import Joi from 'joi';

/** The environment asks for what cannot be. */
export class ConfigError extends Error {}

export const codeRules = ['best', 'portable', 'require-isolation'] as const;
export type CodeRule = (typeof codeRules)[number];

/** Configuration by environment, with safe defaults: nothing here opens a door unless it is set. */
export interface Config {
  readonly host: string;
  readonly port: number;
  readonly dataFolder: string;
  /** How people reach this server, for links in letters. */
  readonly publicUrl: string;
  /** How many proxies stand in front; callers are told apart by the address that the outermost of them saw. */
  readonly proxies: number;
  readonly organisation: string;
  readonly smtpUrl: string | null;
  readonly mailFrom: string;
  /** A drawn person instead of a camera, offered to candidates. For the demo and for tests only. */
  readonly standInCamera: boolean;
  /** What the front page of the demo offers, as the demo has written it; null where this is no demo. */
  readonly demoFile: string | null;
  /** Lets a test move the server's clock. For tests only. */
  readonly testClock: boolean;
  /** Staff who do nothing for this long sign in again. */
  readonly idleMinutes: number;
  /** How long devices may wait from one save to the next while the server has time. Shorter ones are for tests. */
  readonly saveSeconds: number;
  /** Are helpers and the sandbox started with the server, or when they are first needed? */
  readonly warmUp: boolean;
  /** How programs are run: as well as this machine can, always by the portable way, or not without a second wall. */
  readonly code: CodeRule;
  readonly webFolder: string;
  readonly sandboxFolder: string;
}

const root = path.resolve(import.meta.dirname, '..');

interface Settings {
  readonly HOST: string;
  readonly PORT: number;
  readonly CLEAR_SITTING_DATA: string;
  readonly CLEAR_SITTING_URL?: string;
  readonly CLEAR_SITTING_PROXIES: number;
  readonly CLEAR_SITTING_ORGANISATION: string;
  readonly SMTP_URL?: string;
  readonly MAIL_FROM: string;
  readonly CLEAR_SITTING_STANDIN_CAMERA: boolean;
  readonly CLEAR_SITTING_DEMO?: string;
  readonly CLEAR_SITTING_TEST_CLOCK: boolean;
  readonly CLEAR_SITTING_IDLE_MINUTES: number;
  readonly CLEAR_SITTING_SAVE_SECONDS: number;
  readonly CLEAR_SITTING_WARM_UP: boolean;
  readonly CLEAR_SITTING_CODE: CodeRule;
}

const schema = Joi.object({
  HOST: Joi.string().default('127.0.0.1'),
  PORT: Joi.number().port().default(4600),
  CLEAR_SITTING_DATA: Joi.string().default(path.join(root, 'data')),
  CLEAR_SITTING_URL: Joi.string().uri(),
  CLEAR_SITTING_PROXIES: Joi.number().integer().min(0).max(10).default(0),
  CLEAR_SITTING_ORGANISATION: Joi.string().max(100).default('Hollin Reach Seed Archive'),
  SMTP_URL: Joi.string().uri({ scheme: ['smtp', 'smtps'] }),
  MAIL_FROM: Joi.string().default('Clear Sitting <tests@example.org>'),
  CLEAR_SITTING_STANDIN_CAMERA: Joi.boolean().default(false),
  CLEAR_SITTING_DEMO: Joi.string(),
  CLEAR_SITTING_TEST_CLOCK: Joi.boolean().default(false),
  CLEAR_SITTING_SAVE_SECONDS: Joi.number().integer().min(1).max(10).default(10),
  CLEAR_SITTING_WARM_UP: Joi.boolean().default(true),
  CLEAR_SITTING_CODE: Joi.valid(...codeRules).default('best'),
  CLEAR_SITTING_IDLE_MINUTES: Joi.number().integer().min(5).max(720).default(120),
}).unknown();

export function readConfig(environment: Record<string, string | undefined>): Config {
  const { error, value } = schema.validate(environment) as { error?: Error; value: Settings };
  if (error) throw new ConfigError(`The configuration cannot be used: ${error.message}`);
  if (
    value.CLEAR_SITTING_URL?.startsWith('https:') &&
    (value.CLEAR_SITTING_TEST_CLOCK || value.CLEAR_SITTING_STANDIN_CAMERA || value.CLEAR_SITTING_DEMO)
  )
    throw new ConfigError(
      'The configuration cannot be used: the demo, the test clock and the stand-in camera are not for a server that people reach by https.',
    );
  const { HOST: host, PORT: port } = value;
  return {
    host,
    port,
    dataFolder: path.resolve(value.CLEAR_SITTING_DATA),
    publicUrl: (value.CLEAR_SITTING_URL ?? `http://localhost:${port}`).replace(/\/$/, ''),
    proxies: value.CLEAR_SITTING_PROXIES,
    organisation: value.CLEAR_SITTING_ORGANISATION,
    smtpUrl: value.SMTP_URL ?? null,
    mailFrom: value.MAIL_FROM,
    standInCamera: value.CLEAR_SITTING_STANDIN_CAMERA,
    demoFile: value.CLEAR_SITTING_DEMO ? path.resolve(value.CLEAR_SITTING_DEMO) : null,
    testClock: value.CLEAR_SITTING_TEST_CLOCK,
    idleMinutes: value.CLEAR_SITTING_IDLE_MINUTES,
    saveSeconds: value.CLEAR_SITTING_SAVE_SECONDS,
    warmUp: value.CLEAR_SITTING_WARM_UP,
    code: value.CLEAR_SITTING_CODE,
    webFolder: path.join(root, 'dist/web'),
    sandboxFolder: path.join(root, 'dist/sandbox'),
  };
}

/** Do people reach this server by https? Cookies and headers are stricter then. */
export const isSecure = ({ publicUrl }: Pick<Config, 'publicUrl'>): boolean => publicUrl.startsWith('https:');

export interface HasConfig {
  readonly config: Config;
}
