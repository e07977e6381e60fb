import { message, type Message } from '../../messages/message';
import type { Structure } from '../../programs/structure';
import type { Condition } from './response';

const TITLES = { recursion: 'Recursion', loop: 'Loop', name: 'Name', import: 'Import' } as const;

/** A condition in words, as candidates are told of it and as its component is called. */
export function conditionText(condition: Condition): Message {
  if (condition.is === 'lines') return message('code.mostLines', { most: condition.most });
  const code = `code.${condition.must ? 'must' : 'mustNot'}${TITLES[condition.is]}`;
  return 'name' in condition ? message(code, { name: condition.name }) : message(code);
}

function has(structure: Structure, condition: Exclude<Condition, { is: 'lines' }>): boolean {
  if (!('name' in condition)) return structure[condition.is];
  if (condition.is === 'name') return structure.names.includes(condition.name);
  return structure.imports.some((one) => one === condition.name || one.startsWith(`${condition.name}.`));
}

/** Does a program's text keep a condition? */
export const isMet = (structure: Structure, condition: Condition): boolean =>
  condition.is === 'lines' ? structure.lines <= condition.most : has(structure, condition) === condition.must;

/** What is said of a condition beside the credit. */
export function conditionReasons(structure: Structure | null, condition: Condition): Message[] {
  if (structure === null) return [message('code.conditionUnreadable')];
  const met = message(isMet(structure, condition) ? 'code.conditionMet' : 'code.conditionNotMet');
  return condition.is === 'lines' ? [met, message('code.conditionLines', { lines: structure.lines })] : [met];
}
