import type { CaseOutcome, Json } from '../kinds/evidence';
import { faults, PRINTED_KEPT, TEXT_KEPT, type EngineReply, type Fault } from './engine';

/** A returned value may take this many bytes of JSON. */
export const VALUE_BYTES = 256 * 1024;
/** And nest so deep, and hold so many values: counted before it is parsed. */
const MOST_DEPTH = 500;
const MOST_VALUES = 50_000;

const [QUOTE, BACKSLASH, COMMA] = [34, 92, 44];
const OPENS = [91, 123];
const CLOSES = [93, 125];

/** One pass over the text: is it small enough to be parsed without holding anybody up? */
function isModest(text: string): boolean {
  let [depth, values, quoted] = [0, 0, false];
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (quoted) {
      if (code === BACKSLASH) i++;
      else if (code === QUOTE) quoted = false;
    } else if (code === QUOTE) quoted = true;
    else if (OPENS.includes(code)) {
      if (++depth > MOST_DEPTH) return false;
      values++;
    } else if (CLOSES.includes(code)) depth--;
    else if (code === COMMA) values++;
    if (values > MOST_VALUES) return false;
  }
  return true;
}

export const tooSlow = (key: string, milliseconds: number, printed = ''): CaseOutcome => ({
  key,
  result: 'too-slow',
  milliseconds,
  printed,
});
export const faultOutcome = (key: string, fault: Fault, milliseconds = 0): CaseOutcome => ({
  key,
  result: 'error',
  fault,
  text: '',
  line: null,
  milliseconds,
  printed: '',
});

const LIMITS = { memory: 'too-much-memory', output: 'too-much-output' } as const;

type Said =
  | { readonly result: 'returned'; readonly value: Json }
  | { readonly result: 'too-much-memory' }
  | {
      readonly result: 'error';
      readonly fault: Fault;
      readonly text: string;
      readonly line: number | null;
    };
const disturbed: Said = { result: 'error', fault: 'disturbed', text: '', line: null };

/** The harness's reply, whatever it is: of the one allowed shape, or the program has disturbed its own run. */
function readReply(reply: string): Said {
  let parsed: unknown;
  try {
    parsed = JSON.parse(reply);
  } catch {
    return disturbed;
  }
  if (typeof parsed !== 'object' || parsed === null || Array.isArray(parsed)) return disturbed;
  const said = parsed as Record<string, unknown>;
  const names = Object.keys(said).sort().join(' ');
  if (names === 'value') return { result: 'returned', value: said.value as Json };
  if (names === 'memory' && said.memory === true) return { result: 'too-much-memory' };
  const { fault, text, line } = said;
  if (names !== 'fault line text' || typeof text !== 'string') return disturbed;
  if (!faults.includes(fault as Fault)) return disturbed;
  return {
    result: 'error',
    fault: fault as Fault,
    text: text.slice(0, TEXT_KEPT),
    line: typeof line === 'number' && Number.isSafeInteger(line) && line > 0 ? line : null,
  };
}

/**
 * What a case came to, from what the engine said. Believes nothing of it: sizes are checked before anything is parsed,
 * and only one shape is taken. Processor time beyond `limitMs` is too slow, whatever was returned.
 */
export function outcomeOf(key: string, said: EngineReply, limitMs: number): CaseOutcome {
  const printed = said.printed.slice(0, PRINTED_KEPT);
  const common = { key, milliseconds: said.cpuMs, printed };
  if (said.limit === 'time' || said.cpuMs > limitMs) return tooSlow(key, said.cpuMs, printed);
  if (said.limit !== 'none') return { ...common, result: LIMITS[said.limit] };
  if (said.reply.length > VALUE_BYTES || !isModest(said.reply))
    return { ...common, result: 'too-much-output' };
  return { ...common, ...readReply(said.reply) };
}
