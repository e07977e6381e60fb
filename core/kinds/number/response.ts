/** A demand on the form of the answer: decimal places, or significant figures. */
export type Demand =
  | { readonly by: 'places'; readonly places: number }
  | { readonly by: 'figures'; readonly figures: number };

/** How a figure may be entered, and what stands beside its box. */
export interface NumberForm {
  readonly before: string;
  readonly unit: string;
  /** What may be typed for the unit as well, besides what is printed. */
  readonly unitSynonyms: readonly string[];
  readonly minusPossible: boolean;
  /** Whether figures may be entered like 1.2×10³, or as fractions and mixed numbers. */
  readonly scientific: boolean;
  readonly fractions: boolean;
  /** Shown; how near is near enough never is. */
  readonly demand: Demand | null;
}

export interface NumberShown extends NumberForm {
  readonly locale: string;
}

export interface NumberResponse {
  readonly typed: string;
}
