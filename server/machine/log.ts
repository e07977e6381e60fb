import type { Logger } from 'pino';

export interface HasLog {
  readonly log: Logger;
}
