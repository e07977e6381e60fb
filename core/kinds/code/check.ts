import { message, type Message } from '../../messages/message';
import { MAIN_FILES } from '../../programs/engine';
import { languageNames } from '../../programs/languages';
import type { Content, Issue, Place } from '../contract';
import { severe } from '../shared/issues';
import { criteriaMatch, maximumOfRubric } from '../shared/rubric';
import { inputFor } from './caseInput';
import type { CodeAsked, CodeKey } from './content';
import { expectedValue } from './judgeCase';
import { filesAsked, limitsOf } from './program';
import { allCases } from './runs';

type CodeContent = Content<CodeAsked, CodeKey>;

/** All cases of a program together. */
const MOST_MS = 10 * 60_000;

const twice = (names: readonly string[]): boolean => new Set(names).size !== names.length;

/** Something severe, where a condition holds. */
type Rule = readonly [wrong: boolean, path: readonly (string | number)[], why: Message];
const issuesFrom = (rules: readonly Rule[]): Issue[] =>
  rules.flatMap(([wrong, path, why]) => (wrong ? [severe(path, why)] : []));

function issuesOfCases(content: CodeContent): Issue[] {
  const { asked, key } = content;
  const fixtures = [...asked.fixtures, ...key.fixtures];
  return (['asked', 'key'] as const).flatMap((half) =>
    content[half].cases.flatMap(({ title, input, expected }, i) =>
      issuesFrom([
        [
          // What candidates may run must not hang on a database that they do not have.
          inputFor(asked.way, half === 'asked' ? asked.fixtures : fixtures, input) === undefined,
          [half, 'cases', i, 'input'],
          message('code.inputMisfit', { title }),
        ],
        [
          !asked.comparison.byChecker && expectedValue(asked.way, expected) === undefined,
          [half, 'cases', i, 'expected'],
          message('code.expectedMisfit', { title }),
        ],
      ]),
    ),
  );
}

function issuesOfLanguages({ asked }: CodeContent): Issue[] {
  const { way, languages } = asked;
  const names = languages.map(({ language }) => language);
  const sql = names.includes('sql');
  const common: Rule[] = [
    [twice(names), ['asked', 'languages'], message('code.languageTwice')],
    [
      sql ? way.is !== 'query' || names.length > 1 : way.is === 'query',
      ['asked', 'languages'],
      message('code.sqlAlone'),
    ],
    [sql && asked.conditions.length > 0, ['asked', 'conditions'], message('code.conditionsForSql')],
  ];
  const each = languages.flatMap(({ language, files }, i): Rule[] => {
    const path = ['asked', 'languages', i, 'files'];
    const given = files.map(({ name }) => name);
    const [first] = filesAsked(asked, language);
    const needsFile = way.is === 'function' && way.parameters === null && files.length === 0;
    return [
      [
        first!.name !== MAIN_FILES[language] || twice(given),
        path,
        message('code.fileNames', { language: languageNames[language], name: MAIN_FILES[language] }),
      ],
      [
        files.length > 0 && !files.some(({ open }) => open),
        path,
        message('code.noOpenFile', { language: languageNames[language] }),
      ],
      [needsFile, path, message('code.noStarter', { language: languageNames[language] })],
    ];
  });
  return issuesFrom([...common, ...each]);
}

function issuesOfGroups(content: CodeContent): Issue[] {
  const { asked, key } = content;
  const cases = allCases(content).map((one) => one.key);
  const { groups } = key;
  const components = [...groups, ...asked.conditions].map((one) => one.key);
  return issuesFrom([
    [twice(cases) || twice(components), ['key', 'cases'], message('code.sameKey')],
    [
      !groups.every((group) => group.cases.every((one) => cases.includes(one))),
      ['key', 'groups'],
      message('code.caseMissing'),
    ],
    [
      asked.hiddenCases !== key.cases.length || asked.groupCount !== groups.length,
      ['asked', 'hiddenCases'],
      message('code.countsDiffer'),
    ],
    ...groups.map((group, i): Rule => [
      group.needs !== undefined && !groups.slice(0, i).some((one) => one.key === group.needs),
      ['key', 'groups', i, 'needs'],
      message('code.needsMissing', { title: group.title }),
    ]),
  ]);
}

function issuesOfSolutions({ asked, key }: CodeContent): Issue[] {
  return key.solutions.flatMap(({ language, files }, i) => {
    const open = filesAsked(asked, language).filter((file) => file.open);
    const known =
      open.length > 0 && Object.keys(files).every((name) => open.some((file) => file.name === name));
    return issuesFrom([[!known, ['key', 'solutions', i], message('code.solutionLanguage')]]);
  });
}

/** Contradictions within a question that is run. Whether its solutions pass is found by running them. */
export function checkCode(content: CodeContent, { marks }: Place): Issue[] {
  const { asked, key } = content;
  const { rubric } = key;
  const longest = Math.max(...asked.languages.map(({ language }) => limitsOf(asked, language).milliseconds));
  const checkers = [asked.checker, key.checker].filter((one) => one !== null).length;
  return [
    ...issuesOfGroups(content),
    ...issuesOfLanguages(content),
    ...issuesOfCases(content),
    ...issuesOfSolutions(content),
    ...issuesFrom([
      [
        twice([...asked.fixtures, ...key.fixtures].map((one) => one.key)),
        ['asked', 'fixtures'],
        message('code.fixtureMissing'),
      ],
      [
        checkers !== (asked.comparison.byChecker ? 1 : 0),
        ['asked', 'comparison', 'byChecker'],
        message('code.checkerMissing'),
      ],
      [
        rubric ? !criteriaMatch(asked.criteria, rubric) : asked.criteria.length > 0,
        ['asked', 'criteria'],
        message('author.criteriaDiffer'),
      ],
      // What a program takes at most, should every case go up to its limit: others wait for it.
      [allCases(content).length * longest > MOST_MS, ['asked', 'limits'], message('code.limitsTooLong')],
      [rubric !== null && maximumOfRubric(rubric) >= marks, ['key', 'rubric'], message('code.rubricTooMuch')],
    ]),
  ];
}
