/** Who a mark comes from: the machine, or people in their turn. */
export type MarkRole = 'machine' | 'first';
/** Why a mark was given: by scoring, by an assessor, as the response had changed, or as the key was corrected. */
export type MarkCause = 'score' | 'marking' | 'response changed' | 'rescore';
