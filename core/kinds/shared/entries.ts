/** Something that a candidate works with: an option, a row, a chip, an area. */
export interface Entry {
  readonly key: string;
  readonly text: string;
}

/** An entry that earns a share of its own. */
export interface WeightedEntry extends Entry {
  /** Beside the other entries of its part: a whole number from 1 to 1,000; 1 where the author gives none. */
  readonly weight?: number | undefined;
}

export const textOf = (entries: readonly Entry[], key: string): string =>
  entries.find((entry) => entry.key === key)?.text ?? key;

export const keysOf = (entries: readonly { readonly key: string }[]): string[] =>
  entries.map((entry) => entry.key);

export const hasTwice = (keys: readonly string[]): boolean => new Set(keys).size !== keys.length;

/** In the order of these keys; what has no such key is left out. */
export const inOrderOf = <T extends { readonly key: string }>(
  entries: readonly T[],
  keys: readonly string[],
): T[] => keys.flatMap((key) => entries.filter((entry) => entry.key === key));

/** Is this the option of a list? A space around it, which nobody sees, makes no difference. */
export const isSameOption = (option: string, given: string): boolean => option.trim() === given.trim();

/** Those that are known, each once. */
export const knownOnce = (keys: readonly string[], known: readonly string[]): string[] =>
  [...new Set(keys)].filter((key) => known.includes(key));
