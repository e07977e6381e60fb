import { shuffled } from '../../random';
import { plainKind, type Kind } from '../contract';
import { plural } from '../shared/scores';
import {
  contentSchema,
  responseSchema,
  type ChoiceContent,
  type ChoiceResponse,
  type ChoiceShown,
} from './content';
import { scoreChoice } from './score';

const textOf = (options: ChoiceShown['options'], key: string) =>
  options.find((o) => o.key === key)?.text ?? key;

function progress(shown: ChoiceShown, { chosen }: ChoiceResponse) {
  const wanted = shown.mode === 'one' ? 1 : shown.choose;
  if (chosen.length === 0) {
    const missing = shown.mode === 'one' ? 'Choose one' : wanted ? `Choose ${wanted}` : 'Choose all that fit';
    return { state: 'empty', missing } as const;
  }
  const more = (wanted ?? 0) - chosen.length;
  return more > 0
    ? ({ state: 'part', missing: `Choose ${more} more` } as const)
    : ({ state: 'done', missing: null } as const);
}

function ruleInWords(shown: ChoiceShown): string | null {
  if (shown.mode === 'one')
    return shown.penalty > 0 ? 'A wrong choice costs marks; an open one does not.' : null;
  return {
    'all-or-nothing': 'Marks are given only when all the right ones and no others are chosen.',
    each: 'Each right choice earns a share; each wrong one takes a share away, never below nothing.',
    decisions: 'Each option rightly chosen or rightly left earns a share.',
  }[shown.rule];
}

function misfit(shown: ChoiceShown, { chosen }: ChoiceResponse): string | null {
  const most = shown.mode === 'one' ? 1 : (shown.choose ?? shown.options.length);
  if (chosen.length > most) return `more than ${plural(most, 'option', 'options')} chosen`;
  if (new Set(chosen).size !== chosen.length) return 'an option is chosen twice';
  return chosen.every((key) => shown.options.some((o) => o.key === key)) ? null : 'no such option';
}

export const choice: Kind<ChoiceContent, ChoiceShown, ChoiceResponse> = {
  ...plainKind,
  name: 'choice',
  judge: 'machine',
  content: contentSchema,
  response: responseSchema,
  show: (c) => ({
    options: c.options.map(({ key, text }) => ({ key, text })),
    mode: c.mode,
    choose: c.choose,
    rule: c.rule,
    penalty: c.penalty,
    shuffle: c.shuffle,
  }),
  arrange: (shown, random) =>
    shown.shuffle ? { ...shown, options: shuffled(shown.options, random) } : shown,
  empty: () => ({ chosen: [] }),
  misfit,
  progress,
  ruleInWords,
  score: scoreChoice,
  asText: (shown, { chosen }) => chosen.map((key) => textOf(shown.options, key)).join('; '),
  rightAnswer: (c) => c.right.map((key) => textOf(c.options, key)).join('; '),
  wrongCosts: (shown) => shown.mode === 'one' && shown.penalty > 0,
  statistics: (_, { chosen }) => chosen.map((key) => `option:${key}`),
};
