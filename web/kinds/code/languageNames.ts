import type { Language } from '../../../core/kinds/code/content';

export const languageNames: Record<Language, string> = { python: 'Python', javascript: 'JavaScript' };
