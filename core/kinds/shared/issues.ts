import type { Message } from '../../messages/message';
import type { Issue } from '../contract';

export const severe = (path: Issue['path'], message: Message): Issue => ({
  path,
  severity: 'severe',
  message,
});
export const advice = (path: Issue['path'], message: Message): Issue => ({
  path,
  severity: 'advice',
  message,
});
