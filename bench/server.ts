/* The real server with one route more: a bare one, which durable saves are measured against. */
import Joi from 'joi';
import { readConfig } from '../server/config';
import { forAnyone } from '../server/http/endpoint';
import { start } from '../server/start';

start(readConfig(process.env), () => [
  forAnyone({ method: 'post', path: '/bench/bare', body: Joi.object().unknown() }, ({ body }) => body),
]);
