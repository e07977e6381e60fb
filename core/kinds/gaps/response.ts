export type GapShown =
  | { readonly key: string; readonly by: 'typing'; readonly oneWord: boolean }
  | { readonly key: string; readonly by: 'list'; readonly options: readonly string[] };

export interface GapsShown {
  /** With `[[key]]` where each gap stands. */
  readonly text: string;
  readonly gaps: readonly GapShown[];
}

/** What was typed or chosen, by gap. */
export interface GapsResponse {
  readonly filled: Readonly<Record<string, string>>;
}
