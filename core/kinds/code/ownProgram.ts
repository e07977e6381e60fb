import type { CodeResponse, CodeShown } from './response';

/** The program in the chosen language, or null where it is still the starter or empty. */
export function ownProgram(
  languages: CodeShown['languages'],
  { language, programs }: CodeResponse,
): string | null {
  const program = programs[language] ?? '';
  const starter = languages.find((one) => one.language === language)?.starter ?? '';
  return program.trim() === '' || program.trim() === starter.trim() ? null : program;
}
