import type { CaseVerdict } from '../../../core/kinds/code/judgeCase';
import type { CaseOutcome } from '../../../core/kinds/evidence';
import type { FaultPlace } from '../../../core/programs/engine';
import type { ValueType } from '../../../core/programs/signature';
import { words } from '../../words';

export const t = words('cases', {
  cases: 'Cases',
  tally: '{{right}} of {{all}} as expected',
  stale: 'Results of an earlier version',
  all: 'Run all',
  stop: 'Stop',
  input: 'input',
  expected: 'expected',
  got: 'got',
  ms: 'ms',
  ownCase: 'your input {{number}}',
  ownLabel: 'Your own input',
  ownHint: 'your own input, for example {{example}}',
  ownStreams: 'Your own standard input',
  ownTry: 'Run with this input',
  ownRemove: 'Remove {{title}}',
  ownJson:
    'This cannot be read. Write texts in double quotes and lists in square brackets, for example {{example}}',
  ownCount_one:
    'The function takes {{count}} argument. Separate arguments by commas, for example {{example}}',
  ownCount_other: 'The function takes {{count}} arguments. Separate them by commas, for example {{example}}',
  ownType: '“{{name}}” has to be {{type}}. Example: {{example}}',
  accepted: 'as expected',
  wrong: 'different result',
  error: 'error',
  tooSlow: 'over the time',
  tooMuchMemory: 'over the memory',
  tooMuchOutput: 'over the output',
  ran: 'ran',
  noVerdict: 'The examiner’s program decides about this result after you hand in.',
  earlier: 'earlier version',
  printed: 'printed',
  file: 'File {{name}}',
  noRows: 'no rows',
  rows_one: '{{count}} row',
  rows_other: '{{count}} rows',
  moreRows_one: '{{count}} more row',
  moreRows_other: '{{count}} more rows',
  took: '{{ms}} ms',
  memory: '{{megabytes}} MB of memory',
  output: '{{count}} bytes of output',
  details: 'Details of {{title}}',
  thrown: '{{text}}',
  noFunction: 'There is no function {{text}}.',
  notComparable: 'The function returned something that is no value: {{text}}.',
  endedItself: 'The program ended itself.',
  waits: 'The function waits for something that never happens.',
  tooDeep: 'The calls, or the values returned, are nested too deeply.',
  ended: 'The program ended before it was done.',
  forbidden: 'The program tried something that is not allowed here.',
  disturbed: 'What the program returned cannot be read.',
  nulCharacter: 'The query holds a sign that cannot be read (NUL). Remove it.',
  at: '{{file}}, line {{line}}',
  atIn: '{{file}}, line {{line}}, in {{name}}',
  jump: 'Go to {{place}}',
  overTime: 'The case took more than {{seconds}} s.',
  overMemory: 'The case took more than {{megabytes}} MB of memory.',
  overOutput: 'The case wrote more than {{kilobytes}} kB.',
  whole: 'a whole number',
  decimal: 'a number',
  text: 'a text',
  truth: 'true or false',
  nothing: 'null',
  any: 'a value',
  listOf: 'a list: each {{type}}',
  mapOf: 'a map from texts: each {{type}}',
  recordOf: 'a record with {{fields}}',
});

export const placeWords = ({ file, line, in: name }: FaultPlace): string =>
  name === '' ? t('at', { file, line }) : t('atIn', { file, line, name });

export function faultWords({ fault, text }: Extract<CaseOutcome, { result: 'error' }>): string {
  return t(fault, { text });
}

/** A type in words, for whoever writes an input. */
export function typeWords(type: ValueType): string {
  if (typeof type === 'string') return t(type);
  if ('list' in type) return t('listOf', { type: typeWords(type.list) });
  if ('map' in type) return t('mapOf', { type: typeWords(type.map) });
  return t('recordOf', { fields: Object.keys(type.record).join(', ') });
}

export type RowVerdict = CaseVerdict | 'ran';
