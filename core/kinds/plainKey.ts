import { nothing } from '../validation/shapes';

/** What most kinds have nothing to say about, in the key's half. */
export const plainKey = {
  contentVersion: 1,
  arrangement: nothing,
  events: {},
  upgradeContent: (stored: unknown) => stored,
  documents: [],
  formulas: [],
  buildsOn: () => [],
  check: () => [],
  markScheme: () => null,
  modelAnswer: () => null,
  runsPrograms: false,
  evidence: () => [],
  solutions: () => [],
  issuesOfSolution: () => [],
  inspect: () => null,
  runAgain: () => null,
  values: () => ({}),
  accept: () => null,
} as const;
