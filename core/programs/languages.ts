export const PROGRAM_LANGUAGES = ['python', 'javascript', 'typescript', 'sql'] as const;
/** What the sandbox can run. */
export type ProgramLanguage = (typeof PROGRAM_LANGUAGES)[number];

/** Their names, the same in every language that people speak. */
export const languageNames: Record<ProgramLanguage, string> = {
  python: 'Python',
  javascript: 'JavaScript',
  typescript: 'TypeScript',
  sql: 'SQL',
};
