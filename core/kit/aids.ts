/**
 * Aids that a section allows, or that an access arrangement opens for one candidate. What everybody always has (size and
 * spacing of the text, colours, handouts, the list of keys) is not among them.
 */
export const aidNames = [
  'reading-slot',
  'lens',
  'highlight',
  'strike-out',
  'rough-work',
  'calculator',
  'scientific-calculator',
  'ruler',
  'protractor',
  'read-aloud',
  'meanings',
] as const;
export type AidName = (typeof aidNames)[number];

/** What a section allows where its author says nothing: what helps to read, and gives nothing away. */
export const usualAids: readonly AidName[] = [
  'reading-slot',
  'lens',
  'highlight',
  'strike-out',
  'rough-work',
  'meanings',
];

/** The aids of a section for one candidate, each once, in the order of the kit. */
export const aidsFor = (allowed: readonly AidName[], arranged: readonly AidName[]): AidName[] =>
  aidNames.filter((name) => allowed.includes(name) || arranged.includes(name));
