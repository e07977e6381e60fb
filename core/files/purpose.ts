/** What a stored file is used for: pictures taken at the arrival. */
export type FilePurpose = 'picture' | 'identity';
