export const PROGRAM_LANGUAGES = ['python', 'javascript', 'typescript', 'sql'] as const;
/** What the sandbox can run. */
export type ProgramLanguage = (typeof PROGRAM_LANGUAGES)[number];
