import Joi from 'joi';
import type { CaseOutcome, Json } from '../../core/kinds/evidence';
import type { CaseReply } from './child/protocol';

const schema = Joi.object<CaseReply>({
  index: Joi.number().integer().required(),
  reply: Joi.string()
    .allow('')
    .max(1 << 20)
    .required(),
  limit: Joi.valid('none', 'time', 'memory', 'output').required(),
  printed: Joi.string()
    .allow('')
    .max(1 << 20)
    .required(),
  milliseconds: Joi.number().min(0).required(),
});

const harnessReply = Joi.alternatives(
  Joi.object({ value: Joi.any().required() }),
  Joi.object({ error: Joi.string().allow('').required() }),
  Joi.object({ memory: Joi.valid(true).required() }),
);

const PRINTED_KEPT = 2000;
const LIMITS = { time: 'too-slow', memory: 'too-much-memory', output: 'too-much-output' } as const;

/**
 * What a child said about case `index`, believed as little as possible: a message that is malformed, too long or about
 * another case is an error of the program, never a crash here. `elapsedMs` is the parent's own measure.
 */
export function parseReply(message: unknown, index: number, key: string, elapsedMs: number): CaseOutcome {
  const error = (text: string): CaseOutcome => ({
    key,
    result: 'error',
    message: text,
    milliseconds: elapsedMs,
    printed: '',
  });
  const checked = schema.validate(message, { convert: false });
  if (checked.error || checked.value.index !== index) return error('the program disturbed its own test run');
  const { reply, limit, printed } = checked.value;
  const common = {
    key,
    milliseconds: Math.min(checked.value.milliseconds, elapsedMs),
    printed: printed.slice(0, PRINTED_KEPT),
  };
  if (limit !== 'none') return { ...common, result: LIMITS[limit] };
  let parsed: unknown;
  try {
    parsed = JSON.parse(reply);
  } catch {
    return error('what the program returned cannot be read');
  }
  if (harnessReply.validate(parsed, { convert: false }).error)
    return error('the program disturbed its own test run');
  const said = parsed as { value: Json } | { error: string } | { memory: true };
  if ('memory' in said) return { ...common, result: 'too-much-memory' };
  if ('error' in said) return { ...common, result: 'error', message: said.error.slice(0, 400) };
  return { ...common, result: 'returned', value: said.value };
}
