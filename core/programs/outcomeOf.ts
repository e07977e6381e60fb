import type { CaseOutcome } from '../kinds/evidence';
import {
  faults,
  NAME_KEPT,
  PLACES_KEPT,
  PRINTED_KEPT,
  TEXT_KEPT,
  type EngineReply,
  type Fault,
  type FaultPlace,
} from './engine';
import { isValue, type Value } from './value';

/** A returned value may take this many bytes of JSON. */
export const VALUE_BYTES = 256 * 1024;
/** And nest so deep, and hold so many values: counted before it is parsed. */
const MOST_DEPTH = 500;
const MOST_VALUES = 150_000;

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
  memoryBytes: 0,
  printed,
});
export const faultOutcome = (key: string, fault: Fault, milliseconds = 0): CaseOutcome => ({
  key,
  result: 'error',
  fault,
  text: '',
  at: [],
  milliseconds,
  memoryBytes: 0,
  printed: '',
});

const LIMITS = { memory: 'too-much-memory', output: 'too-much-output' } as const;

type Said =
  | { readonly result: 'returned'; readonly value: Value }
  | { readonly result: 'too-much-memory' }
  | {
      readonly result: 'error';
      readonly fault: Fault;
      readonly text: string;
      readonly at: readonly FaultPlace[];
    };
const disturbed: Said = { result: 'error', fault: 'disturbed', text: '', at: [] };

const isLine = (line: unknown): line is number => Number.isSafeInteger(line) && (line as number) > 0;

/** Places as far as they are some: what is odd about one costs only that one. */
function readPlaces(at: readonly unknown[]): FaultPlace[] {
  return at.slice(0, PLACES_KEPT).flatMap((place) => {
    const { file, line, in: within } = (place ?? {}) as Record<string, unknown>;
    if (typeof file !== 'string' || typeof within !== 'string' || !isLine(line)) return [];
    return [{ file: file.slice(0, NAME_KEPT), line, in: within.slice(0, NAME_KEPT) }];
  });
}

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
  if (names === 'value') return isValue(said.value) ? { result: 'returned', value: said.value } : disturbed;
  if (names === 'memory' && said.memory === true) return { result: 'too-much-memory' };
  const { fault, text, at } = said;
  if (names !== 'at fault text' || typeof text !== 'string' || !Array.isArray(at)) return disturbed;
  if (!faults.includes(fault as Fault)) return disturbed;
  return {
    result: 'error',
    fault: fault as Fault,
    text: text.slice(0, TEXT_KEPT),
    at: readPlaces(at),
  };
}

/**
 * What a case came to, from what the engine said. Believes nothing of it: sizes are checked before anything is parsed,
 * and only one shape is taken. Processor time beyond `limitMs` is too slow, whatever was returned.
 */
export function outcomeOf(key: string, said: EngineReply, limitMs: number): CaseOutcome {
  const printed = said.printed.slice(0, PRINTED_KEPT);
  const common = { key, milliseconds: said.cpuMs, memoryBytes: said.memoryBytes, printed };
  if (said.limit === 'time' || said.cpuMs > limitMs) return tooSlow(key, said.cpuMs, printed);
  if (said.limit !== 'none') return { ...common, result: LIMITS[said.limit] };
  if (said.reply.length > VALUE_BYTES || !isModest(said.reply))
    return { ...common, result: 'too-much-output' };
  return { ...common, ...readReply(said.reply) };
}
