import type { Json } from '../kinds/evidence';
import type { ProgramLanguage } from './languages';
import { isList, type Value } from './value';

/** The type of an argument or a result, the same for all languages. */
export type ValueType =
  | 'whole'
  | 'decimal'
  | 'text'
  | 'truth'
  | 'nothing'
  /** Whatever it is; numbers count by their value. */
  | 'any'
  | { readonly list: ValueType }
  | { readonly map: ValueType }
  | { readonly record: Readonly<Record<string, ValueType>> };

export interface Signature {
  readonly name: string;
  readonly parameters: readonly { readonly name: string; readonly type: ValueType }[];
  readonly returns: ValueType;
}

const WHOLE_TEXT = /^-?\d{1,4000}$/;
const DECIMAL_TEXT = /^-?\d{1,400}(?:\.\d{1,400})?$/;

const isRecord = (json: Json): json is { [key: string]: Json } =>
  typeof json === 'object' && json !== null && !Array.isArray(json);

function numberOf(json: Json, type: 'whole' | 'decimal'): Value | undefined {
  if (typeof json === 'number') {
    if (!Number.isFinite(json)) return undefined;
    if (type === 'decimal') return ['d', String(json)];
    return Number.isSafeInteger(json) ? ['i', String(json)] : undefined;
  }
  if (typeof json !== 'string') return undefined;
  if (type === 'whole') return WHOLE_TEXT.test(json) ? ['i', BigInt(json).toString()] : undefined;
  return DECIMAL_TEXT.test(json) ? ['d', json] : undefined;
}

function membersOf(json: Json, typeOf: (name: string) => ValueType | undefined): Value | undefined {
  if (!isRecord(json)) return undefined;
  const items: Value[] = [];
  for (const [name, member] of Object.entries(json)) {
    const type = typeOf(name);
    const value = type === undefined ? undefined : typedValue(member, type);
    if (value === undefined) return undefined;
    items.push(name, value);
  }
  return ['m', ...items];
}

function listOf(json: Json, type: ValueType): Value | undefined {
  if (!Array.isArray(json)) return undefined;
  const items = json.map((one) => typedValue(one, type));
  return items.includes(undefined) ? undefined : ['l', ...(items as Value[])];
}

/**
 * A value as an author or a candidate writes it in JSON, by its type; undefined where it does not fit. Whole numbers beyond
 * ±(2^53 − 1) and long decimals are written as text.
 */
export function typedValue(json: Json, type: ValueType): Value | undefined {
  if (typeof type === 'object') {
    if ('list' in type) return listOf(json, type.list);
    if ('map' in type) return membersOf(json, () => type.map);
    const { record } = type;
    const made = membersOf(json, (name) => (Object.hasOwn(record, name) ? record[name] : undefined));
    return isRecord(json) && Object.keys(record).every((name) => Object.hasOwn(json, name))
      ? made
      : undefined;
  }
  if (type === 'any') return untyped(json);
  if (type === 'whole' || type === 'decimal') return numberOf(json, type);
  if (type === 'nothing') return json === null ? null : undefined;
  return typeof json === (type === 'text' ? 'string' : 'boolean') ? (json as Value) : undefined;
}

function untyped(json: Json): Value | undefined {
  if (typeof json === 'number') return numberOf(json, 'decimal');
  if (Array.isArray(json)) return listOf(json, 'any');
  return isRecord(json) ? membersOf(json, () => 'any') : json;
}

/**
 * A value as it is given to a program. An untyped whole figure is a whole number there; as an expected one it is a number
 * by its value alone.
 */
export function givenValue(json: Json, type: ValueType): Value | undefined {
  const value = typedValue(json, type);
  return value === undefined ? undefined : forProgram(value, type);
}

function forProgram(value: Value, type: ValueType): Value {
  if (!isList(value)) return value;
  const [tag, ...items] = value;
  if (tag === 'd') {
    const text = items[0] as string;
    return type !== 'decimal' && WHOLE_TEXT.test(text) ? ['i', text] : ['f', text];
  }
  if (tag === 'l') {
    const of = typeof type === 'object' && 'list' in type ? type.list : 'any';
    return ['l', ...items.map((one) => forProgram(one, of))];
  }
  if (tag !== 'm') return value;
  const typeOf = (name: string): ValueType => {
    if (typeof type !== 'object') return 'any';
    if ('map' in type) return type.map;
    return 'record' in type ? type.record[name]! : 'any';
  };
  const made = items.map((one, i) => (i % 2 === 0 ? one : forProgram(one, typeOf(items[i - 1] as string))));
  return ['m', ...made];
}

const PYTHON: Record<string, string> = {
  whole: 'int',
  decimal: 'float',
  text: 'str',
  truth: 'bool',
  nothing: 'None',
};
const TYPESCRIPT: Record<string, string> = {
  whole: 'number',
  decimal: 'number',
  text: 'string',
  truth: 'boolean',
  nothing: 'null',
  any: 'unknown',
};

function pythonType(type: ValueType): string | null {
  if (typeof type !== 'object') return PYTHON[type] ?? null;
  if ('record' in type) return 'dict';
  const of = pythonType('list' in type ? type.list : type.map);
  if ('list' in type) return of === null ? 'list' : `list[${of}]`;
  return of === null ? 'dict' : `dict[str, ${of}]`;
}

function scriptType(type: ValueType): string {
  if (typeof type !== 'object') return TYPESCRIPT[type]!;
  if ('list' in type) {
    const of = scriptType(type.list);
    return /^\w+$/.test(of) ? `${of}[]` : `(${of})[]`;
  }
  if ('map' in type) return `Record<string, ${scriptType(type.map)}>`;
  const fields = Object.entries(type.record).map(([name, of]) => `${name}: ${scriptType(of)}`);
  return `{ ${fields.join('; ')} }`;
}

/** What a candidate begins with where the author wrote nothing: the function with its arguments, in a language. */
export function starterOf({ name, parameters, returns }: Signature, language: ProgramLanguage): string {
  if (language === 'python') {
    const given = parameters.map((one) => {
      const type = pythonType(one.type);
      return type === null ? one.name : `${one.name}: ${type}`;
    });
    const type = pythonType(returns);
    return `def ${name}(${given.join(', ')})${type === null ? '' : ` -> ${type}`}:\n    pass\n`;
  }
  if (language === 'typescript') {
    const given = parameters.map((one) => `${one.name}: ${scriptType(one.type)}`);
    return `function ${name}(${given.join(', ')}): ${scriptType(returns)} {\n  \n}\n`;
  }
  const notes = [
    ...parameters.map((one) => ` * @param {${scriptType(one.type)}} ${one.name}`),
    ` * @returns {${scriptType(returns)}}`,
  ];
  const names = parameters.map((one) => one.name).join(', ');
  return `/**\n${notes.join('\n')}\n */\nfunction ${name}(${names}) {\n  \n}\n`;
}
