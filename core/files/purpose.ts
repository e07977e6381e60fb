export const filePurposes = ['picture', 'identity'] as const;
/** What a file is kept for: the candidate's own picture, or that of their identity document. */
export type FilePurpose = (typeof filePurposes)[number];
