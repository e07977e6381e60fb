import { message } from '../../messages/message';
import { shuffled } from '../../random';
import type { Content, Fact, Issue, KeyKind } from '../contract';
import { plainKey } from '../plainKey';
import { hasTwice, inOrderOf, keysOf, textOf } from '../shared/entries';
import { severe } from '../shared/issues';
import type { GridChoiceArrangement, GridChoiceAsked, GridChoiceKey } from './content';
import { chosenIn, type GridChoiceResponse, type GridChoiceShown } from './response';
import { isRightRow, rowComponents, scoreGridChoice } from './score';
import { arrangementSchema, askedSchema, keySchema, responseSchema } from './schemas';

type GridContent = Content<GridChoiceAsked, GridChoiceKey>;

function checkRow({ asked, key }: GridContent, statement: string): Issue[] {
  const right = key.rows[statement];
  const path = ['key', 'rows', statement];
  if (!right) return [severe(path, message('grid-choice.noRight'))];
  const known = keysOf(asked.categories);
  if (hasTwice(right) || right.some((one) => !known.includes(one)))
    return [severe(path, message('grid-choice.rightUnknown'))];
  if (asked.mode === 'one' && right.length !== 1) return [severe(path, message('grid-choice.oneRight'))];
  return right.length === 0 && !asked.mayStayEmpty ? [severe(path, message('grid-choice.emptyRight'))] : [];
}

function check(content: GridContent): Issue[] {
  const { asked, key } = content;
  const statements = keysOf(asked.statements);
  const issues: Issue[] = [];
  if (hasTwice(statements)) issues.push(severe(['asked', 'statements'], message('author.sameKey')));
  if (hasTwice(keysOf(asked.categories)))
    issues.push(severe(['asked', 'categories'], message('author.sameKey')));
  if (asked.mayStayEmpty && asked.mode === 'one')
    issues.push(severe(['asked', 'mayStayEmpty'], message('grid-choice.emptyOne')));
  if (Object.keys(key.rows).some((row) => !statements.includes(row)))
    issues.push(severe(['key', 'rows'], message('grid-choice.noStatement')));
  if (statements.every((row) => key.rows[row]?.length === 0))
    issues.push(severe(['key', 'rows'], message('grid-choice.nothingRight')));
  return [...issues, ...statements.flatMap((row) => checkRow(content, row))];
}

function facts(content: GridContent, response: GridChoiceResponse): Fact[] {
  const { statements, categories } = content.asked;
  return statements.flatMap(({ key }): Fact[] => {
    const chosen = chosenIn(response, key);
    if (chosen.length === 0) return [];
    const answer = chosen.map((one) => textOf(categories, one)).join(', ');
    return [{ component: key, type: 'option', answer, right: isRightRow(content, key, chosen) }];
  });
}

export const gridChoiceKey: KeyKind<
  GridChoiceAsked,
  GridChoiceKey,
  GridChoiceShown,
  GridChoiceResponse,
  GridChoiceArrangement
> = {
  ...plainKey,
  name: 'grid-choice',
  asked: askedSchema,
  key: keySchema,
  response: responseSchema,
  arrangement: arrangementSchema,
  blank: () => ({
    asked: {
      statements: [{ key: 'a', text: '' }],
      categories: ['x', 'y'].map((key) => ({ key, text: '' })),
      mode: 'one',
      rule: 'all-or-nothing',
      mayStayEmpty: false,
      shuffle: false,
    },
    key: { rows: { a: [] } },
  }),
  check,
  arrange: ({ asked }, random) => {
    const keys = keysOf(asked.statements);
    return asked.shuffle ? shuffled(keys, random) : keys;
  },
  show: (asked, arrangement) => ({
    statements: inOrderOf(asked.statements, arrangement).map(({ key, text }) => ({ key, text })),
    categories: asked.categories.map(({ key, text }) => ({ key, text })),
    mode: asked.mode,
    rule: asked.rule,
    mayStayEmpty: asked.mayStayEmpty,
  }),
  components: ({ asked }, marks) => rowComponents(asked, marks),
  score: scoreGridChoice,
  rightResponse: ({ key }) => ({
    rows: Object.fromEntries(
      Object.entries(key.rows)
        .filter(([, right]) => right.length > 0)
        .map(([row, right]) => [row, [...right]]),
    ),
  }),
  facts: ({ content, response }) => facts(content, response),
};
