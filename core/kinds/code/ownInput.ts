import type { ValueType } from '../../programs/signature';
import { typedValue } from '../../programs/signature';
import type { Json } from '../evidence';
import type { Way } from './response';

/** An input that a candidate wrote, read; or what is wrong with it. */
export type OwnInput =
  | { readonly input: Json }
  | { readonly problem: 'json' | 'count' }
  | { readonly problem: 'type'; readonly name: string; readonly type: ValueType };

/** Where a text in JSON that begins at a place ends; the end of everything where it does not. */
function endOfText(json: string, from: number): number {
  for (let i = from + 1; i < json.length; i++) {
    if (json[i] === '\\') i++;
    else if (json[i] === '"') return i + 1;
  }
  return json.length;
}

/** JSON in which whole numbers that JavaScript would round stand as text, as a type for whole numbers takes them. */
function exactly(json: string): string {
  let out = '';
  for (let at = 0; at < json.length;) {
    let to = at + 1;
    if (json[at] === '"') to = endOfText(json, at);
    else while (/[-+.\w]/.test(json[at]!) && to < json.length && /[-+.\w]/.test(json[to]!)) to++;
    const token = json.slice(at, to);
    out += /^-?\d+$/.test(token) && !Number.isSafeInteger(Number(token)) ? `"${token}"` : token;
    at = to;
  }
  return out;
}

/** Arguments as a candidate writes them: JSON, separated by commas. */
function readArguments({ parameters }: Extract<Way, { is: 'function' }>, text: string): OwnInput {
  let given: Json[];
  try {
    given = JSON.parse(`[${parameters === null ? text : exactly(text)}]`) as Json[];
  } catch {
    return { problem: 'json' };
  }
  // Where nothing is known of the arguments, their list is written.
  if (parameters === null) return Array.isArray(given[0]) ? { input: given[0] } : { problem: 'json' };
  if (given.length !== parameters.length) return { problem: 'count' };
  const wrong = parameters.find(({ type }, i) => typedValue(given[i]!, type) === undefined);
  return wrong ? { problem: 'type', ...wrong } : { input: given };
}

export const readOwnInput = (way: Way, text: string): OwnInput =>
  way.is === 'function' ? readArguments(way, text) : { input: text };
