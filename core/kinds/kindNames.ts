/** The name of every kind of part there is. A new kind adds its line here. */
export const kindNames = [
  'choice',
  'code',
  'expression',
  'gaps',
  'grid-choice',
  'hot-area',
  'match',
  'number',
  'number-line',
  'on-paper',
  'order',
  'plot',
  'select-text',
  'sort',
  'table-entry',
  'upload',
  'writing',
] as const;

export type KindName = (typeof kindNames)[number];

const known: readonly string[] = kindNames;

export const isKindName = (name: unknown): name is KindName =>
  typeof name === 'string' && known.includes(name);
