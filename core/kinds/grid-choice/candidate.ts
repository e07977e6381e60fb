import { message } from '../../messages/message';
import { plainCandidate, type CandidateKind, type Progress } from '../contract';
import { hasTwice, keysOf, knownOnce, textOf } from '../shared/entries';
import { chosenIn, type GridChoiceResponse, type GridChoiceShown } from './response';

function progress(shown: GridChoiceShown, response: GridChoiceResponse): Progress {
  const open = shown.statements.filter(({ key }) => chosenIn(response, key).length === 0);
  const count = open.length;
  if (count === shown.statements.length)
    return { state: 'empty', missing: message('grid-choice.empty', { count }) };
  if (count === 0 || shown.mayStayEmpty) return { state: 'done', missing: null };
  return { state: 'part', missing: message('grid-choice.open', { count, text: open[0]!.text }) };
}

function misfit({ statements, categories, mode }: GridChoiceShown, { rows }: GridChoiceResponse) {
  for (const [statement, chosen] of Object.entries(rows)) {
    const known =
      statements.some(({ key }) => key === statement) &&
      chosen.every((one) => categories.some(({ key }) => key === one));
    if (!known) return message('grid-choice.unknown');
    if (hasTwice(chosen)) return message('grid-choice.twice');
    if (mode === 'one' && chosen.length > 1) return message('grid-choice.onlyOne');
  }
  return null;
}

function fitting({ statements, categories }: GridChoiceShown, response: GridChoiceResponse) {
  const rows: Record<string, string[]> = {};
  for (const key of keysOf(statements)) {
    const chosen = knownOnce(chosenIn(response, key), keysOf(categories));
    if (chosen.length > 0) rows[key] = chosen;
  }
  return { rows };
}

const RULES = {
  'all-or-nothing': 'grid-choice.ruleAll',
  each: 'grid-choice.ruleEach',
  decisions: 'grid-choice.ruleDecisions',
};

/** “statement: categories”, a line each; statements without one only where all are wanted. */
function lines(shown: GridChoiceShown, response: GridChoiceResponse, all: boolean): string {
  return shown.statements
    .map(({ key, text }) => ({ text, chosen: chosenIn(response, key) }))
    .filter(({ chosen }) => all || chosen.length > 0)
    .map(({ text, chosen }) => `${text}: ${chosen.map((one) => textOf(shown.categories, one)).join(', ')}`)
    .join('\n');
}

export const gridChoice: CandidateKind<GridChoiceShown, GridChoiceResponse> = {
  ...plainCandidate,
  name: 'grid-choice',
  empty: () => ({ rows: {} }),
  misfit,
  fitting,
  progress,
  guessing: ({ mode }) => (mode === 'one' ? 'free' : 'within'),
  rule: (shown) => message(shown.mode === 'one' ? 'grid-choice.ruleRow' : RULES[shown.rule]),
  describe: (shown, response) => ({ form: 'list', text: lines(shown, response, false) }),
  inFull: (shown, response) => ({ form: 'list', text: lines(shown, response, true) }),
};
