/** Who a mark comes from: the machine, or people in their turn. */
export type MarkRole = 'machine' | 'first';
/** Why a mark was given: by scoring, by an assessor, or anew because the response had changed. */
export type MarkCause = 'score' | 'marking' | 'response changed';

/** The one component that every part has for now: all of its marks. */
export const WHOLE_PART = 'whole';
