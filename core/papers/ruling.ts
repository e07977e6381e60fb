/**
 * What was decided of a part after it was asked, over whatever was answered: nobody's marks count it, or everybody, or
 * everybody who answered it, has all its marks.
 */
export const rulings = ['withdrawn', 'marks for all', 'marks for who answered'] as const;
export type Ruling = (typeof rulings)[number];

/** What a round does with the marks of a withdrawn part: the rest is scaled to the same maximum, or that is lowered. */
export const withdrawnRules = ['scaled', 'lowered'] as const;
export type WithdrawnRule = (typeof withdrawnRules)[number];
