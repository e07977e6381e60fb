import { message } from '../messages/message';
import { check } from '../validation/shapes';
import { candidateKindOf } from './candidateKindOf';
import type { KindName } from './kindNames';
import { keyKindOf } from './keyKinds';
import { answersOpenedBy, openStored, type Read } from './stored';

/** Reads a response from outside, of the present or an older version, and checks its shape. */
export function readResponse(name: KindName, stored: unknown): Read {
  const opened = openStored(candidateKindOf(name), stored);
  if ('problem' in opened) return opened;
  const checked = check(keyKindOf(name).response, opened.response);
  return 'value' in checked ? { response: checked.value } : { problem: message('stored.noResponse') };
}

/** As `responseOrEmpty`, for answers that nobody has checked yet. */
export const checkedOrEmpty = answersOpenedBy(readResponse);
