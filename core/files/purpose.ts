export const arrivalPictures = ['picture', 'identity'] as const;
/** The candidate's own picture, and that of their identity document. */
export type ArrivalPicture = (typeof arrivalPictures)[number];

/**
 * What a file is kept for: a picture of the arrival, a page of an answer as it was sent, what people see of one, or what
 * goes with the remark on a whole script.
 */
export type FilePurpose = ArrivalPicture | 'page' | 'page view' | 'remark';
