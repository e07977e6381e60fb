import { MAIN_FILES, type ProgramFile } from '../../programs/engine';
import { starterOf } from '../../programs/signature';
import type { AskedFile, CodeResponse, CodeShown, Language, Limits, Way } from './response';

type Asked = Pick<CodeShown, 'way' | 'languages' | 'limits'>;

/** What an open file begins with where the author wrote none. */
function starterFor(way: Way, language: Language): string {
  if (way.is !== 'function' || way.parameters === null) return '';
  return starterOf({ ...way, parameters: way.parameters }, language);
}

/** The files of a program in a language, as a candidate begins with them; none where the language is not offered. */
export function filesAsked(
  { way, languages }: Omit<Asked, 'limits'>,
  language: Language,
): readonly AskedFile[] {
  const found = languages.find((one) => one.language === language);
  if (!found) return [];
  if (found.files.length > 0) return found.files;
  return [{ name: MAIN_FILES[language], text: starterFor(way, language), open: true, head: '', tail: '' }];
}

/** An open file's own text, as written or as it was begun. */
export const textOf = ({ programs, language }: CodeResponse, { name, text }: ProgramFile): string =>
  programs[language]?.[name] ?? text;

/** The program in the chosen language, whole. */
export const programFiles = (asked: Omit<Asked, 'limits'>, response: CodeResponse): ProgramFile[] =>
  filesAsked(asked, response.language).map((file) => ({
    name: file.name,
    text: file.open ? `${file.head}${textOf(response, file)}${file.tail}` : file.text,
  }));

/** The program in the chosen language, or null where nothing of it was written. */
export function ownProgram(asked: Omit<Asked, 'limits'>, response: CodeResponse): ProgramFile[] | null {
  const open = filesAsked(asked, response.language).filter((file) => file.open);
  const written = open.some((file) => {
    const text = textOf(response, file).trim();
    return text !== '' && text !== file.text.trim();
  });
  return written ? programFiles(asked, response) : null;
}

/** What people read of a program: its open files, each under its name where there are several. */
export function readableProgram(asked: Omit<Asked, 'limits'>, response: CodeResponse): string {
  if (ownProgram(asked, response) === null) return '';
  const open = filesAsked(asked, response.language).filter((file) => file.open);
  const files = programFiles(asked, response).filter(({ name }) => open.some((file) => file.name === name));
  return files.length === 1
    ? files[0]!.text
    : files.map(({ name, text }) => `${name}\n\n${text}`).join('\n\n');
}

export const limitsOf = ({ languages, limits }: Asked, language: Language): Limits =>
  languages.find((one) => one.language === language)?.limits ?? limits;
