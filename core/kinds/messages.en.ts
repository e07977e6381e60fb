import type { KindName } from './candidateKinds';
import { messages as choice } from './choice/messages.en';
import { messages as code } from './code/messages.en';
import { messages as gaps } from './gaps/messages.en';
import { messages as number } from './number/messages.en';
import { messages as order } from './order/messages.en';
import { messages as writing } from './writing/messages.en';

/** The words of every kind, in English. A new kind adds its line here. */
export const kindMessages = { choice, code, gaps, number, order, writing } satisfies {
  [K in KindName]: Readonly<Record<string, string>>;
};
