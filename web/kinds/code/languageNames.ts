import type { Language } from '../../../core/kinds/code/response';

export const languageNames: Record<Language, string> = {
  python: 'Python',
  javascript: 'JavaScript',
  typescript: 'TypeScript',
  sql: 'SQL',
};
