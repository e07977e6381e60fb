import type { ChoiceAsked, ChoiceKey } from '../../core/kinds/choice/content';
import type { CodeAsked, CodeKey } from '../../core/kinds/code/content';
import type { TestCase } from '../../core/kinds/code/response';
import { MAIN_FILES } from '../../core/programs/engine';
import type { Content } from '../../core/kinds/contract';
import type { GapsAsked, GapsKey } from '../../core/kinds/gaps/content';
import type { NumberAsked, NumberKey } from '../../core/kinds/number/content';
import type { OrderAsked, OrderKey } from '../../core/kinds/order/content';
import { topOf, type Rubric } from '../../core/kinds/shared/rubric';
import type { WritingAsked } from '../../core/kinds/writing/content';

/* The contents of the demo's questions, written shorter than they are stored: what is usual is left out. */

interface Choice {
  readonly options: readonly { key: string; text: string }[];
  readonly right: readonly string[];
  readonly shuffle?: boolean;
}

export const chooseOne = ({ options, right, shuffle = false }: Choice): Content<ChoiceAsked, ChoiceKey> => ({
  asked: {
    options: [...options],
    mode: 'one',
    choose: null,
    rule: 'all-or-nothing',
    penalty: null,
    shuffle,
  },
  key: { right: [...right] },
});

export const chooseTwo = ({ options, right }: Choice): Content<ChoiceAsked, ChoiceKey> => ({
  asked: { options: [...options], mode: 'several', choose: 2, rule: 'each', penalty: null, shuffle: false },
  key: { right: [...right] },
});

interface Figure extends Partial<Pick<NumberAsked, 'unit' | 'minusPossible' | 'demand'>> {
  /** The distance that is near enough. */
  readonly within?: string;
  readonly accepted: NumberKey['accepted'];
}

export const figure = ({ within, accepted, ...asked }: Figure): Content<NumberAsked, NumberKey> => ({
  asked: {
    before: '',
    unit: '',
    unitSynonyms: [],
    minusPossible: false,
    scientific: false,
    fractions: false,
    demand: null,
    ...asked,
  },
  key: { tolerance: within === undefined ? null : { by: 'distance', within }, accepted, also: [] },
});

type Gap = { readonly key: string } & (
  | { readonly accepted: readonly string[]; readonly slips?: number }
  | { readonly options: readonly string[]; readonly right: string }
);

export const gapsIn = (text: string, gaps: readonly Gap[]): Content<GapsAsked, GapsKey> => ({
  asked: {
    text,
    gaps: gaps.map((gap) =>
      'options' in gap
        ? { key: gap.key, by: 'list', options: [...gap.options] }
        : { key: gap.key, by: 'typing', oneWord: true },
    ),
  },
  key: {
    gaps: Object.fromEntries(
      gaps.map((gap) => [
        gap.key,
        'options' in gap
          ? { by: 'list', right: gap.right }
          : {
              by: 'typing',
              ignoreCase: true,
              ignoreAccents: true,
              slips: gap.slips ?? 0,
              accepted: gap.accepted.map((one) => ({ text: one, percent: 100 })),
            },
      ]),
    ),
  },
});

export const inOrder = (
  items: OrderAsked['items'],
  right: readonly string[],
): Content<OrderAsked, OrderKey> => ({
  asked: { items, rule: 'rank', shuffle: false },
  key: { right: [...right] },
});

/** A rubric with its scheme and model answer in Markdown. */
type RubricDraft = Omit<Rubric, 'scheme' | 'modelAnswer'> & {
  readonly scheme: string;
  readonly modelAnswer?: string;
};

const told = ({ criteria }: RubricDraft) =>
  criteria.map((criterion) => ({ title: criterion.title, hundredths: topOf(criterion) }));

export const written = (
  words: { readonly from: number; readonly to: number },
  rubric: RubricDraft,
): Content<WritingAsked, { readonly rubric: RubricDraft }> => ({
  asked: { format: 'rich', wordsFrom: words.from, wordsTo: words.to, limit: 'soft', criteria: told(rubric) },
  key: { rubric },
});

type DemoCase = Omit<TestCase, 'files'> & Partial<Pick<TestCase, 'files'>> & { readonly shown: boolean };

interface Program extends Partial<
  Omit<CodeAsked, 'way' | 'languages' | 'cases' | 'comparison' | 'hiddenCases' | 'groupCount' | 'criteria'>
> {
  readonly way: CodeAsked['way'];
  readonly languages: readonly (
    | CodeAsked['languages'][number]
    | CodeAsked['languages'][number]['language']
  )[];
  readonly cases: readonly DemoCase[];
  readonly groups: CodeKey['groups'];
  readonly comparison?: Partial<CodeAsked['comparison']>;
  readonly hiddenFixtures?: CodeKey['fixtures'];
  readonly solutions?: CodeKey['solutions'];
  readonly hiddenChecker?: CodeKey['checker'];
  readonly rubric?: RubricDraft;
}

type ProgramKey = Omit<CodeKey, 'rubric'> & { readonly rubric: RubricDraft | null };

/** A question that is answered by a program: what most of them have in common is added here. */
export function program(own: Program): Content<CodeAsked, ProgramKey> {
  const { cases, groups, rubric, languages, comparison, hiddenFixtures, solutions, hiddenChecker, ...asked } =
    own;
  const these = (shown: boolean): TestCase[] =>
    cases
      .filter((one) => one.shown === shown)
      .map(({ key, title, input, files = [], expected }) => ({ key, title, input, files, expected }));
  const hidden = these(false);
  return {
    asked: {
      limits: { milliseconds: 2000, megabytes: 64 },
      fixtures: [],
      checker: null,
      conditions: [],
      showsHidden: false,
      ...asked,
      languages: languages.map((one) =>
        typeof one === 'string' ? { language: one, files: [], limits: null } : one,
      ),
      comparison: {
        text: 'lines',
        within: 0,
        anyOrder: false,
        columnNames: false,
        byChecker: false,
        ...comparison,
      },
      cases: these(true),
      hiddenCases: hidden.length,
      groupCount: groups.length,
      criteria: rubric ? told(rubric) : [],
    },
    key: {
      cases: hidden,
      fixtures: hiddenFixtures ?? [],
      groups,
      checker: hiddenChecker ?? null,
      solutions: solutions ?? [],
      rubric: rubric ?? null,
    },
  };
}

/** The one open file of a program, with what candidates begin with. */
export const startingWith = (
  language: CodeAsked['languages'][number]['language'],
  text: string,
): CodeAsked['languages'][number] => ({
  language,
  files: [{ name: MAIN_FILES[language], text, open: true, head: '', tail: '' }],
  limits: null,
});
