/* The real server with two routes more: a bare one, which durable saves are measured against, and the loop's own delay. */
import { monitorEventLoopDelay } from 'node:perf_hooks';
import Joi from 'joi';
import { readConfig } from '../server/config';
import { forAnyone, JOURNAL_LIMIT_KB } from '../server/http/endpoint';
import { start } from '../server/start';

/** How often the loop is looked at; what is measured holds as much on top of what is meant. */
const RESOLUTION_MS = 2;
const delay = monitorEventLoopDelay({ resolution: RESOLUTION_MS });
delay.enable();

start(readConfig(process.env), () => [
  forAnyone(
    { method: 'post', path: '/bench/bare', body: Joi.object().unknown(), limitKb: JOURNAL_LIMIT_KB },
    ({ body }) => body,
  ),
  /** By how much timers came late since this was last asked, in ms. */
  forAnyone({ method: 'get', path: '/bench/delay' }, () => {
    const late = (share: number) => Math.max(0, delay.percentile(share) / 1e6 - RESOLUTION_MS);
    const told = { p50: late(50), p99: late(99), most: Math.max(0, delay.max / 1e6 - RESOLUTION_MS) };
    delay.reset();
    return told;
  }),
]);
