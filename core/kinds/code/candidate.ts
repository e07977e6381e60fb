import { message, type Message } from '../../messages/message';
import { MAIN_FILES } from '../../programs/engine';
import { plainCandidate, type CandidateKind } from '../contract';
import { shownOfToday } from './secondVersion';
import { filesAsked, ownProgram, readableProgram } from './program';
import { LANGUAGES, type CodeResponse, type CodeShown, type Language, type RunEvent } from './response';

/** The first version had one text for each language. */
function upgradeResponse(stored: unknown): unknown {
  const { programs, ...rest } = stored as { programs: Record<string, unknown> };
  const files = Object.entries(programs).map(([language, text]) => [
    language,
    typeof text === 'string' && (LANGUAGES as readonly string[]).includes(language)
      ? { [MAIN_FILES[language as Language]]: text }
      : text,
  ]);
  return { ...rest, programs: Object.fromEntries(files) as Record<string, unknown> };
}

/** A program in one file as the first version had it: what was marked then stays marked. */
function markedAs({ programs, ...rest }: CodeResponse): unknown {
  const plain = Object.entries(programs).map(([language, files]) => {
    const names = Object.keys(files);
    const main = MAIN_FILES[language as Language];
    return [language, names.length === 1 && names[0] === main ? files[main] : files];
  });
  return { ...rest, programs: Object.fromEntries(plain) as unknown };
}

/** How outcomes are compared, in one sentence. */
function ruleOf({ way, comparison }: CodeShown): Message {
  const { text, within, anyOrder, columnNames, byChecker } = comparison;
  if (byChecker) return message('code.ruleChecker');
  const bounded = within > 0 ? 'Within' : '';
  if (way.is === 'query') {
    const rows = anyOrder ? 'rowsAnyOrder' : 'rowsInOrder';
    return message(`code.${rows}${columnNames ? 'Named' : ''}${bounded}`, { most: within });
  }
  const any = anyOrder ? 'AnyOrder' : '';
  if (way.is === 'streams')
    return message(`code.${text}${any}${text === 'words' ? bounded : ''}`, { most: within });
  return message(`code.${within > 0 ? 'ruleTolerance' : 'ruleExact'}${any}`, { most: within });
}

const openNames = (shown: CodeShown, language: Language): string[] =>
  filesAsked(shown, language).flatMap((file) => (file.open ? [file.name] : []));

/** A language or a file that the question does not have. */
function misfit(shown: CodeShown, { language, programs }: CodeResponse): Message | null {
  const offered = shown.languages.map((one) => one.language);
  if (!offered.includes(language)) return message('code.noLanguage');
  const known = offered.every((one) => {
    const open = openNames(shown, one);
    return Object.keys(programs[one] ?? {}).every((name) => open.includes(name));
  });
  return known ? null : message('code.noFile');
}

/** A run on the candidate's device, in one line. */
function toldRun({ cases }: RunEvent): Message {
  const samples = cases.filter(({ key }) => !key.startsWith('own-'));
  if (samples.length === 0) return message('code.ranOwn');
  const passed = samples.filter(({ verdict }) => verdict === 'accepted').length;
  return message('code.ran', { all: samples.length, passed });
}

/** Only what this question asks for: languages and open files that it has. */
function fitting(shown: CodeShown, response: CodeResponse): CodeResponse {
  const offered = shown.languages.map((one) => one.language);
  const programs = offered.flatMap((language) => {
    const open = openNames(shown, language);
    const own = Object.entries(response.programs[language] ?? {}).filter(([name]) => open.includes(name));
    return own.length === 0 ? [] : [[language, Object.fromEntries(own)] as const];
  });
  const language = offered.includes(response.language) ? response.language : offered[0]!;
  return { language, programs: Object.fromEntries(programs) };
}

export const code: CandidateKind<CodeShown, CodeResponse> = {
  ...plainCandidate,
  name: 'code',
  responseVersion: 2,
  upgradeResponse,
  upgradeShown: shownOfToday,
  markedAs,
  events: ['inputs', 'run'],
  tellEvent: (name, value) => (name === 'run' ? toldRun(value as RunEvent) : null),
  empty: (shown) => ({ language: shown.languages[0]!.language, programs: {} }),
  misfit,
  fitting,
  progress: (shown, response) =>
    ownProgram(shown, response) === null
      ? { state: 'empty', missing: message('code.empty') }
      : { state: 'done', missing: null },
  rule: ruleOf,
  describe: (shown, response) => ({ form: 'program', text: readableProgram(shown, response) }),
  compared: (shown, response) => ({
    form: response.language === 'typescript' ? 'javascript' : response.language,
    text: readableProgram(shown, response),
    given: shown.languages.flatMap(({ language }) =>
      filesAsked(shown, language).map(({ head, text, tail }) => `${head}${text}${tail}`),
    ),
  }),
};
