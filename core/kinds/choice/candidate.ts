import { message, type Message } from '../../messages/message';
import { plainCandidate, type CandidateKind } from '../contract';
import { keysOf, knownOnce } from '../shared/entries';
import type { ChoiceResponse, ChoiceShown } from './response';

const most = (shown: ChoiceShown) => (shown.mode === 'one' ? 1 : (shown.choose ?? shown.options.length));

const wantedOf = ({ mode, choose }: ChoiceShown): number | null => (mode === 'one' ? 1 : choose);

/** How many options are to be chosen: “Choose one”, “Choose 2”, “Choose all that fit”. */
export const directionOf = (shown: ChoiceShown): Message => {
  const wanted = wantedOf(shown);
  return wanted === null ? message('choice.chooseAll') : message('choice.choose', { count: wanted });
};

function progress(shown: ChoiceShown, { chosen }: ChoiceResponse) {
  if (chosen.length === 0) return { state: 'empty', missing: directionOf(shown) } as const;
  const more = (wantedOf(shown) ?? 0) - chosen.length;
  return more > 0
    ? ({ state: 'part', missing: message('choice.chooseMore', { count: more }) } as const)
    : ({ state: 'done', missing: null } as const);
}

function misfit(shown: ChoiceShown, { chosen }: ChoiceResponse) {
  if (chosen.length > most(shown)) return message('choice.tooMany', { count: most(shown) });
  if (new Set(chosen).size !== chosen.length) return message('choice.twice');
  return chosen.every((key) => shown.options.some((o) => o.key === key)) ? null : message('choice.noOption');
}

const RULES = {
  'all-or-nothing': 'choice.ruleAll',
  each: 'choice.ruleEach',
  decisions: 'choice.ruleDecisions',
};

function rule(shown: ChoiceShown) {
  if (shown.mode === 'one') return shown.costs ? message('choice.ruleCosts') : null;
  return message(RULES[shown.rule]);
}

export const choice: CandidateKind<ChoiceShown, ChoiceResponse> = {
  ...plainCandidate,
  name: 'choice',
  empty: () => ({ chosen: [] }),
  misfit,
  fitting: ({ options }, { chosen }) => ({ chosen: knownOnce(chosen, keysOf(options)) }),
  progress,
  rule,
  guessing: ({ mode, costs, rule: several, choose }) => {
    if (mode === 'one') return costs ? 'costs' : 'free';
    // Who has to choose a certain number loses nothing that leaving one out would have kept.
    return several === 'all-or-nothing' && choose !== null ? 'free' : 'within';
  },
  describe: (shown, { chosen }) => {
    const textOf = (key: string) => shown.options.find((o) => o.key === key)?.text ?? key;
    return { form: 'words', text: chosen.map(textOf).join('; ') };
  },
  inFull: (shown, { chosen }, say) => ({
    form: 'list',
    text: shown.options
      .map(({ key, text }) => (chosen.includes(key) ? say(message('choice.chosen', { text })) : text))
      .join('\n'),
  }),
  events: ['strike'],
};
